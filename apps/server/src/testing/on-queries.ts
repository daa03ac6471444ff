import { PostgresQueryRunner } from 'typeorm/driver/postgres/PostgresQueryRunner.js';

const condition = /((?:"?\w+"?\.)?"?studio_id"?) = \$(\d+)/g;

/** Takes the condition on the studio out of every query, as if somebody had forgotten it, until it is put back. */
export function forgetStudios(): { readonly count: () => number; readonly restore: () => void } {
  let count = 0;
  const restore = onQueries((sql) =>
    sql.replace(condition, (_, _column: string, place: string) => {
      count += 1;
      return `$${place}::uuid IS NOT NULL`;
    }),
  );
  return { count: () => count, restore };
}

/** Lets `change` see and change every statement that TypeORM sends, until what comes back is called. */
export function onQueries(change: (sql: string, values: readonly unknown[]) => string): () => void {
  const real = PostgresQueryRunner.prototype.query;
  PostgresQueryRunner.prototype.query = function (this: PostgresQueryRunner, sql, values, isStructured): ReturnType<typeof real> {
    return real.call(this, change(sql, (values ?? []) as readonly unknown[]), values, isStructured);
  };
  return () => {
    PostgresQueryRunner.prototype.query = real;
  };
}
