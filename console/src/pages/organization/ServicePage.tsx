import { Button, Textarea } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError } from '../../api/client';
import { evidenceKey } from '../../api/organizationQueries';
import { me } from '../../api/queries';
import { CopyText } from '../../parts/CopyText';
import { Copy } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import type { Problem } from '../../api/problem';

/** The service itself: its release, the key of its evidence, the log's anchor, a backup. */
export function ServicePage() {
  const who = useQuery(me);
  const key = useQuery(evidenceKey);
  return (
    <>
      <div className="head">
        <PageTitle>This service</PageTitle>
      </div>
      <dl className="facts">
        <dt>release</dt>
        <dd>{who.data?.release ?? 'of a build without one'}</dd>
        <dt>you are</dt>
        <dd>
          {who.data?.name}, {who.data?.role}
        </dd>
        <dt>description of the API</dt>
        <dd>
          <a href="/openapi/v1.json">OpenAPI</a>
        </dd>
      </dl>
      <section aria-label="Evidence key">
        <h2>Evidence key</h2>
        <p className="soft">Whoever checks a file of evidence needs this public key, and should get it from you.</p>
        {key.isPending && <Loading />}
        {key.error && <Failure error={key.error} />}
        {key.data && (
          <>
            <p>
              {key.data.algorithm}, thumbprint <CopyText text={key.data.thumbprint} />
            </p>
            <pre className="file" tabIndex={0}>
              {key.data.pem}
            </pre>
            <Copy value={key.data.pem} what="the public key" />
          </>
        )}
      </section>
      <section aria-label="Anchor of the log">
        <h2>Anchor of the log</h2>
        <p className="soft">
          Keep it elsewhere: with it anybody can tell later that nothing was cut off the end of the log.
        </p>
        <Button component="a" variant="default" href="/api/log/anchor" download="log-anchor.txt">
          Save the anchor
        </Button>
      </section>
      <Backup />
    </>
  );
}

function Backup() {
  const who = useQuery(me);
  const [recipient, setRecipient] = useState('');
  const backup = useMutation({
    mutationFn: async () => {
      const answer = await fetch('/api/backup', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ recipient: recipient.trim() === '' ? null : recipient }),
      });
      if (!answer.ok) {
        const problem = (await answer.json()) as Problem;
        throw new ApiError(answer.status, problem.title, problem.detail ?? null, problem.faults ?? []);
      }
      const link = document.createElement('a');
      link.href = URL.createObjectURL(await answer.blob());
      link.download = `just-right-${new Date().toISOString().slice(0, 10)}.backup`;
      link.click();
      URL.revokeObjectURL(link.href);
    },
  });
  return (
    <section aria-label="Backup">
      <h2>Backup</h2>
      <Textarea
        label="Certificate of who may open it (PEM)"
        description="Without one, passwords and secrets are left out"
        value={recipient}
        onChange={(e) => setRecipient(e.currentTarget.value)}
        maw={560}
        autosize
        minRows={3}
        maxRows={8}
        mb="sm"
      />
      <Button
        variant="default"
        disabled={who.data?.role !== 'owner'}
        loading={backup.isPending}
        onClick={() => backup.mutate()}
      >
        Save a backup
      </Button>
      {who.data && who.data.role !== 'owner' && <span className="soft"> An owner may; you are a {who.data.role}.</span>}
      {backup.error && <Failure error={backup.error} />}
      <div role="status">{backup.isSuccess && 'The backup was saved.'}</div>
    </section>
  );
}
