import { Table } from '@mantine/core';
import type { SignInView } from '../../../api/schema.gen';
import { Copy } from '../../../parts/Dn';

/** What the product is told: its own settings with their values, each to copy, and why. */
export function SettingsTable({ view }: { view: SignInView }) {
  const because = (key: string | null) => view.settings.find((s) => s.key === key)?.because ?? 'the same everywhere';
  return (
    <section aria-label="sign-in settings">
      <div className="head">
        <h2>Sign-in settings</h2>
        <span className="soft">
          {view.form === 'list' ? 'type it in' : 'to stand in'} {view.where} on {view.typedOn.join(', ')}
        </span>
      </div>
      <Table aria-label="settings" verticalSpacing={4}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Setting</Table.Th>
            <Table.Th>Value</Table.Th>
            <Table.Th>Because</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {view.fields.map((field) => (
            <Table.Tr key={field.name}>
              <Table.Th scope="row">{field.name}</Table.Th>
              <Table.Td className="setting-value">
                {field.value == null ? (
                  <span className="soft">not known yet</span>
                ) : (
                  <>
                    <code>{field.value}</code>
                    {!field.isReference && <Copy value={field.value} what={field.name} />}
                  </>
                )}
              </Table.Td>
              <Table.Td className="soft">{because(field.key ?? null)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <details>
        <summary>{view.form === 'list' ? 'The list as text' : `The file, as ${view.form}`}</summary>
        <div className="file">
          <pre>{view.text}</pre>
          <Copy value={view.text} what={view.where} />
        </div>
      </details>
    </section>
  );
}
