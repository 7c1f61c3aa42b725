import { describe, expect, it } from 'vitest';
import { ApiError, need } from './client';

const answer = (status: number, data?: unknown, error?: unknown) =>
  Promise.resolve({ data, error, response: new Response(null, { status }) });

describe('answers of the service', () => {
  it('are their data when they are good', async () => {
    await expect(need(answer(200, { name: 'x' }))).resolves.toEqual({ name: 'x' });
  });

  it('are errors with title, detail and faults when they are problems', async () => {
    const fault = { file: 'a.yaml', line: 3, column: 5, field: 'x', message: 'wrong' };
    const error = await need(answer(400, undefined, { title: 'Faulty', detail: 'Fix it', faults: [fault] })).catch(
      (e: unknown) => e,
    );
    expect(error).toBeInstanceOf(ApiError);
    expect(error).toMatchObject({ status: 400, message: 'Faulty', detail: 'Fix it', faults: [fault] });
  });

  it('say their status when they say nothing else', async () => {
    await expect(need(answer(502))).rejects.toThrow('The service answered with status 502.');
  });
});
