import { Button, CloseButton, TextInput } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { Link } from '@tanstack/react-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { AccountFitView, FitView, JudgementView } from '../../api/schema.gen';
import { Balance } from '../../parts/Balance';
import { countsOf } from '../../parts/strokes';
import { columnsOf, gather, isFine } from './gather';
import { GatheredChip } from './GatheredChip';
import { PersonsWord } from './PersonsWord';
import { RightFacts } from './RightFacts';
import './matrix.css';
import { moveFocus } from './moveFocus';

/** Accounts as rows, places as columns, rights with their verdicts in the cells; what one can know of a right stands beside it. */
export function Matrix({ fit }: { fit: FitView }) {
  const [selectedId, setSelected] = useState<string | null>(null);
  const [onlyOff, setOnlyOff] = useState(false);
  const [words, setWords] = useState('');
  useHotkeys([['o', () => setOnlyOff((only) => !only)]]);
  const { places, columnOf } = useMemo(() => columnsOf(fit), [fit]);
  const rows = useMemo(() => rowsOf(fit, onlyOff, words), [fit, onlyOff, words]);
  const selected = fit.accounts.flatMap((a) => a.rights).find((r) => r.id === selectedId) ?? null;
  const shown = rows.flatMap((r) => r.rights);
  const total = fit.accounts.reduce((sum, a) => sum + a.rights.length, 0);
  return (
    <>
      <div className="head">
        <TextInput
          aria-label="Filter the matrix"
          placeholder="Accounts, rights, places"
          size="xs"
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <Button
          size="compact-sm"
          variant={onlyOff ? 'filled' : 'default'}
          aria-pressed={onlyOff}
          onClick={() => setOnlyOff(!onlyOff)}
        >
          Only what is off (o)
        </Button>
        <span className="soft" role="status">
          {shown.length === total ? `${total} rights` : `${shown.length} of ${total} rights`}
        </span>
      </div>
      <div className={selected ? 'matrix-beside' : ''}>
        <div className="matrix-frame" tabIndex={-1}>
          <table className="matrix" aria-label="Accounts and places" onKeyDown={moveFocus}>
            <thead>
              <tr>
                <th scope="col">account</th>
                {places.map((place) => (
                  <th scope="col" key={place}>
                    {place}
                    <br />
                    <Balance
                      counts={countsOf(shown.filter((r) => columnOf(r) === place).map((r) => r.verdict))}
                      quiet
                    />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(({ account, rights }) => (
                <tr key={account.key}>
                  <th scope="row">
                    <Link to="/installs/$name/accounts/$account" params={{ name: fit.install, account: account.key }}>
                      {account.key}
                    </Link>{' '}
                    <code>{account.name}</code>
                    <div className="purpose">{account.purpose}</div>
                    <Balance counts={account.counts} quiet />
                  </th>
                  {places.map((place) => (
                    <td key={place}>
                      {gather(rights.filter((r) => columnOf(r) === place)).map((alike) => (
                        <GatheredChip
                          key={alike.right}
                          alike={alike}
                          place={place}
                          quiet={selected !== null}
                          onSelect={setSelected}
                        />
                      ))}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length === 0 && <p className="empty">{onlyOff ? 'Nothing is off here.' : 'Nothing matches.'}</p>}
        </div>
        {selected && <Panel right={selected} fit={fit} onClose={() => setSelected(null)} />}
      </div>
    </>
  );
}

interface Row {
  account: AccountFitView;
  rights: JudgementView[];
}

/** The rows that are shown: every account, or those with something that matches. */
function rowsOf(fit: FitView, onlyOff: boolean, words: string): Row[] {
  const asked = words.trim().toLowerCase();
  if (!onlyOff && asked === '') return fit.accounts.map((account) => ({ account, rights: account.rights }));
  return fit.accounts
    .map((account) => {
      const named = `${account.key} ${account.name}`.toLowerCase().includes(asked);
      return {
        account,
        rights: account.rights
          .filter((r) => !onlyOff || !isFine(r))
          .filter((r) => named || `${r.right} ${r.place}`.toLowerCase().includes(asked)),
      };
    })
    .filter((row) => row.rights.length > 0);
}

/** Everything known of one right, beside the matrix and never over it. */
function Panel({ right, fit, onClose }: { right: JudgementView; fit: FitView; onClose: () => void }) {
  const panel = useRef<HTMLElement>(null);
  const from = useRef<Element>(null);
  useEffect(() => {
    from.current = document.activeElement;
    panel.current?.focus({ preventScroll: true });
    return () => (from.current as HTMLElement | null)?.focus({ preventScroll: true });
  }, [right.id]);
  useHotkeys([['Escape', onClose]], []);
  return (
    <section
      ref={panel}
      role="dialog"
      aria-label={`${right.right} on ${right.place}`}
      tabIndex={-1}
      className="matrix-panel"
    >
      <div className="head">
        <h2>
          {right.right} on {right.place}
        </h2>
        <span className="grow" />
        <CloseButton aria-label="Close" onClick={onClose} />
      </div>
      <RightFacts right={right} estate={fit.estate} />
      {right.product && (
        <PersonsWord install={fit.install} account={right.account} product={right.product} title={fit.title} />
      )}
      <NextOf right={right} fit={fit} />
    </section>
  );
}

/** What one can do about a right now. */
function NextOf({ right, fit }: { right: JudgementView; fit: FitView }) {
  const ways = [];
  if (right.verdict === 'missing' || right.verdict === 'excess' || right.verdict === 'forbidden')
    ways.push(
      <Link key="worklist" to="/installs/$name" params={{ name: fit.install }} search={{ tab: 'worklist' }}>
        Its step on the worklist
      </Link>,
      <Link key="review" to="/installs/$name" params={{ name: fit.install }} search={{ tab: 'review' }}>
        Accept it for a time
      </Link>,
    );
  ways.push(
    <Link key="password" to="/passwords/$estate/$account" params={{ estate: fit.estate, account: right.account }}>
      The password of {right.account}
    </Link>,
  );
  return (
    <ul className="ways" aria-label="What can be done">
      {ways.map((way) => (
        <li key={way.key}>{way}</li>
      ))}
    </ul>
  );
}
