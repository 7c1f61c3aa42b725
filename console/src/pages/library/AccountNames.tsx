import { Autocomplete, Checkbox } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { accounts as accountsQuery } from '../../api/queries';
import type { PlannedAccountView } from '../../api/schema.gen';
import type { Named, OwnNames } from './installText';

/** How many accounts of the estate are offered. */
const offered = 8;

interface Props {
  estate: string;
  accounts: PlannedAccountView[];
  own: OwnNames;
  onOwn: (own: OwnNames) => void;
}

/** The accounts with the names that they will have; each may have another, or be one that is there already. */
export function AccountNames({ estate, accounts, own, onOwn }: Props) {
  return (
    <fieldset className="account-names">
      <legend>Accounts</legend>
      <p className="soft">Left empty, the naming rules of the estate decide.</p>
      {accounts.map((account) => (
        <AccountName
          key={account.key}
          estate={estate}
          account={account}
          named={own[account.key] ?? { name: '', existing: false }}
          onName={(named) => onOwn({ ...own, [account.key]: named })}
        />
      ))}
    </fieldset>
  );
}

interface OneProps {
  estate: string;
  account: PlannedAccountView;
  named: Named;
  onName: (named: Named) => void;
}

function AccountName({ estate, account, named, onName }: OneProps) {
  const [focused, setFocused] = useState(false);
  const [search] = useDebouncedValue(named.name, 250);
  const known = useQuery({
    ...accountsQuery(estate, { skip: 0, take: offered, ...(search ? { search } : {}) }),
    enabled: focused,
  });
  const names = known.data?.items.filter((a) => a.state === 'there').map((a) => a.name) ?? [];
  return (
    <div className="account-name">
      <Autocomplete
        label={account.key}
        description={account.purpose}
        placeholder={account.name}
        data={names}
        filter={({ options }) => options} // the service looked for them
        value={named.name}
        onChange={(name) => onName({ name, existing: named.existing || names.includes(name) })}
        onFocus={() => setFocused(true)}
        comboboxProps={{ withinPortal: false }}
      />
      <Checkbox
        label="is there already"
        aria-label={`${account.key} is there already`}
        checked={named.existing}
        onChange={(e) => onName({ ...named, existing: e.currentTarget.checked })}
      />
    </div>
  );
}
