import { Table } from '@mantine/core';
import type { SignInFileView, SignInView } from '../../../api/schema.gen';
import { Copy } from '../../../parts/Dn';
import { Wide } from '../../../parts/Wide';

/** What the product is told: its own settings with their values, each to copy, and why; a table for each file and page. */
export function SettingsTable({ view }: { view: SignInView }) {
  return (
    <section aria-label="sign-in settings">
      {view.files.map((file) => (
        <OneFile key={`${file.where} ${file.typedOn.join()}`} file={file} />
      ))}
      {view.roles.length > 0 && (
        <>
          <div className="head">
            <h2>Roles</h2>
            <span className="soft">what people are in the product, by the groups they are in</span>
          </div>
          <Wide>
            <Table aria-label="roles" verticalSpacing={4}>
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>Role</Table.Th>
                  <Table.Th>Members of</Table.Th>
                  <Table.Th>Somebody who must have it</Table.Th>
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {view.roles.map((role) => (
                  <Table.Tr key={role.key}>
                    <Table.Th scope="row">{role.called}</Table.Th>
                    <Table.Td className="setting-value">
                      {role.groups.map((group) => (
                        <div key={group}>
                          <code>{group}</code>
                          <Copy value={group} what={`the group of ${role.called}`} />
                        </div>
                      ))}
                    </Table.Td>
                    <Table.Td>{role.person ?? <span className="soft">nobody is named</span>}</Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </Wide>
        </>
      )}
    </section>
  );
}

function OneFile({ file }: { file: SignInFileView }) {
  return (
    <>
      <div className="head">
        <h2>Sign-in settings</h2>
        <span className="soft">
          {file.form === 'list' ? 'type it in' : 'to stand in'} {file.where} on {file.typedOn.join(', ')}
        </span>
      </div>
      <Wide>
        <Table aria-label={`settings in ${file.where}`} verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Setting</Table.Th>
              <Table.Th>Value</Table.Th>
              <Table.Th>Because</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {file.fields.map((field) => (
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
                <Table.Td className="soft">{field.because ?? 'the same everywhere'}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Wide>
      <details>
        <summary>{file.form === 'list' ? 'The list as text' : `The file, as ${file.form}`}</summary>
        <div className="file">
          <pre>{file.text}</pre>
          <Copy value={file.text} what={file.where} />
        </div>
      </details>
    </>
  );
}
