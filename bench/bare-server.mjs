import express from 'express';
import pg from 'pg';

// The baselines of the load figures: Express, and one update or one select by an indexed key, once alone and once in a transaction that names a studio. Nothing else.
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10 });
await pool.query('CREATE TABLE bare (id int PRIMARY KEY, body jsonb NOT NULL)');
await pool.query("INSERT INTO bare SELECT n, '{}' FROM generate_series(0, 99) n");
const app = express();
app.put('/bare/:id', express.json({ limit: '300kb' }), async (request, response) => {
  await pool.query('UPDATE bare SET body = $2 WHERE id = $1', [request.params.id, request.body]);
  response.json(request.body);
});
app.get('/bare/:id', async (request, response) => {
  response.json((await pool.query('SELECT body FROM bare WHERE id = $1', [request.params.id])).rows[0]);
});
app.get('/bare-in-studio/:id', async (request, response) => {
  const client = await pool.connect();
  await client.query("BEGIN; SET LOCAL zelpit.studio = '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10'");
  const { rows } = await client.query('SELECT body FROM bare WHERE id = $1', [request.params.id]);
  await client.query('COMMIT');
  client.release();
  response.json(rows[0]);
});
const server = app.listen(0, '127.0.0.1', () => process.send({ listening: server.address().port }));
