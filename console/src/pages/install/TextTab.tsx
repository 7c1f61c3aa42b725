import { useNavigate } from '@tanstack/react-router';
import { DocumentEditor } from '../library/DocumentEditor';
import { RemoveDocument } from '../library/RemoveDocument';
import { Versions } from '../library/Versions';
import { Upgrade } from './Upgrade';

/** The install as its author wrote it, the way to another release, its versions, and its end. */
export function TextTab({ name, sheet, text }: { name: string; sheet: string; text: string }) {
  const navigate = useNavigate();
  return (
    <>
      <DocumentEditor
        kind="install"
        name={name}
        text={text}
        onSaved={(saved) => void navigate({ to: '/installs/$name', params: { name: saved } })}
      />
      <Upgrade name={name} sheet={sheet} />
      <Versions kind="install" name={name} />
      <section aria-label="Remove">
        <h2>Remove</h2>
        <RemoveDocument kind="install" name={name} onGone={() => void navigate({ to: '/installs' })} />
      </section>
    </>
  );
}
