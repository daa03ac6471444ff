import express from 'express';
import pg from 'pg';

// The baseline of the load figure: Express, and one update by an indexed key. Nothing else.
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10 });
await pool.query('CREATE TABLE bare (id int PRIMARY KEY, body jsonb NOT NULL)');
await pool.query("INSERT INTO bare SELECT n, '{}' FROM generate_series(0, 99) n");
const app = express();
app.put('/bare/:id', express.json({ limit: '300kb' }), async (request, response) => {
  await pool.query('UPDATE bare SET body = $2 WHERE id = $1', [request.params.id, request.body]);
  response.json(request.body);
});
const server = app.listen(0, '127.0.0.1', () => process.send({ listening: server.address().port }));
