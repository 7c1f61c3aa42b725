import { Button, Textarea } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { Failure } from '../../parts/Failure';

/** A kept password is handed over once, encrypted to a certificate: only who holds its key can open it. */
export function HandOver({ estate, account, may }: { estate: string; account: string; may: boolean }) {
  const [certificate, setCertificate] = useState('');
  const seal = useMutation({
    mutationFn: () =>
      need(
        api.POST('/api/estates/{name}/passwords/{account}/seal', {
          params: { path: { name: estate, account } },
          body: { certificate },
        }),
      ),
  });
  return (
    <details>
      <summary>Hand the password over, encrypted to a certificate</summary>
      <Textarea
        label="Certificate of whoever gets it (PEM)"
        description="It is kept here no longer afterwards"
        value={certificate}
        onChange={(e) => setCertificate(e.currentTarget.value)}
        maw={560}
        autosize
        minRows={3}
        maxRows={8}
        my="sm"
      />
      <Button
        variant="default"
        disabled={!may || certificate.trim() === ''}
        loading={seal.isPending}
        onClick={() => seal.mutate()}
      >
        Hand it over
      </Button>
      {seal.error && <Failure error={seal.error} />}
      <div role="status">
        {seal.data && (
          <>
            <p>
              The password of {seal.data.account}, encrypted to {seal.data.sealedTo} (CMS):
            </p>
            <pre className="file" tabIndex={0}>
              {seal.data.cms}
            </pre>
          </>
        )}
      </div>
    </details>
  );
}
