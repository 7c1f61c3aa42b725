import { Button, FileButton, Table, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { SheetDraftView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { PageTitle } from '../../parts/PageTitle';
import { DocumentEditor } from './DocumentEditor';
import { Wide } from '../../parts/Wide';

/** A vendor's table becomes the draft of a sheet: what was understood, and a question for each line that was not. */
export function NewSheetPage() {
  const navigate = useNavigate();
  const [product, setProduct] = useState('');
  const [release, setRelease] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const draft = useMutation({
    mutationFn: async (table: File) =>
      need(
        api.POST('/api/sheets/draft', {
          params: {
            query: {
              file: table.name,
              ...(product ? { product } : {}),
              ...(release ? { release } : {}),
            },
          },
          // the service takes the bytes as they are
          body: table as unknown as string,
          bodySerializer: (bytes: unknown) => bytes as BodyInit,
          headers: { 'content-type': 'application/octet-stream' },
        }),
      ),
  });
  return (
    <>
      <div className="head">
        <PageTitle>New sheet</PageTitle>
        <span className="soft">
          From the table of accounts and rights in a vendor’s setup guide: CSV or a workbook.
        </span>
      </div>
      <div className="head">
        <TextInput label="Product, one word" value={product} onChange={(e) => setProduct(e.currentTarget.value)} />
        <TextInput label="Release" value={release} onChange={(e) => setRelease(e.currentTarget.value)} />
      </div>
      <div className="head">
        <FileButton
          accept=".csv,.xlsx"
          inputProps={{ 'aria-label': 'The table' }}
          onChange={(chosen) => {
            setFile(chosen);
            if (chosen) draft.mutate(chosen);
          }}
        >
          {(props) => (
            <Button {...props} loading={draft.isPending}>
              Choose the table
            </Button>
          )}
        </FileButton>
        {file && <span className="soft">{file.name}</span>}
        {file && draft.data && (
          <Button variant="default" onClick={() => draft.mutate(file)}>
            Draft again
          </Button>
        )}
      </div>
      {draft.error && <Failure error={draft.error} />}
      {draft.data && (
        <>
          <Understood draft={draft.data} />
          <DocumentEditor
            key={draft.data.text}
            kind="sheet"
            name=""
            text={draft.data.text}
            onSaved={(name) => void navigate({ to: '/sheets/$name', params: { name } })}
          />
        </>
      )}
    </>
  );
}

function Understood({ draft }: { draft: SheetDraftView }) {
  return (
    <section aria-label="What was understood">
      <p>
        {draft.understood} of {draft.rows} rows were understood whole. Columns:{' '}
        {draft.columns.map((c) => `${c.head} is ${c.says}`).join(', ')}.
      </p>
      {draft.questions.length > 0 && (
        <Wide>
          <Table verticalSpacing={4} aria-label="Questions">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Row</Table.Th>
                <Table.Th>Account</Table.Th>
                <Table.Th>It says</Table.Th>
                <Table.Th>To be answered</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {draft.questions.map((q, i) => (
                <Table.Tr key={i}>
                  <Table.Td>{q.row}</Table.Td>
                  <Table.Td>{q.account}</Table.Td>
                  <Table.Td>{q.text}</Table.Td>
                  <Table.Td>{q.asks}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Wide>
      )}
      {draft.faults.map((fault) => (
        <p key={fault}>{fault}</p>
      ))}
    </section>
  );
}
