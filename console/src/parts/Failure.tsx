import { Alert, Text } from '@mantine/core';
import { ApiError } from '../api/client';

/** An error: what happened, where, and how to fix it. */
export function Failure({ error }: { error: Error }) {
  const known = error instanceof ApiError ? error : null;
  return (
    <Alert color="gray" variant="outline" title={error.message} role="alert">
      {known?.faults.map((f) => (
        <Text size="sm" key={`${f.line}:${f.column}:${f.field}`}>
          <code>{f.line > 0 ? `${f.file}:${f.line}:${f.column}` : f.field}</code> {f.message}
          {f.expected ? ` Expected: ${f.expected}.` : ''}
          {f.nearest ? ` Did you mean '${f.nearest}'?` : ''}
        </Text>
      ))}
      {known?.faults.length === 0 && known.detail}
    </Alert>
  );
}
