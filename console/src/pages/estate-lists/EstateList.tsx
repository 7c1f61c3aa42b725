import { useQuery, type UseQueryOptions } from '@tanstack/react-query';
import type { ColumnDef } from '@tanstack/react-table';
import { DataTable } from '../../parts/DataTable';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { PageTitle } from '../../parts/PageTitle';
import { useEstate } from '../../parts/useEstate';
import { type ListOrder, useListOrder } from '../../parts/useListOrder';
import { SurveyEstate } from './SurveyEstate';

interface Page<T> {
  items: T[];
  skipped: number;
  total: number;
}

interface Props<T, P extends Page<T>> {
  title: string;
  /** The estate that the address names. */
  named: string | undefined;
  onChoose: (estate: string) => void;
  // The keys of queries differ, and cells are of many types; the page does not care which.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  list: (estate: string, order: ListOrder) => UseQueryOptions<P, Error, P, any>;
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  columns: (estate: string) => ColumnDef<T, any>[];
  empty: string;
  /** The column that it is sorted by where nobody says. */
  sort?: string;
  /** What there is to say above the table. */
  note?: (page: P) => React.ReactNode;
}

/** A page of what an estate has, searched and sorted by the service, with the way to survey it anew. */
export function EstateList<T, P extends Page<T>>(props: Props<T, P>) {
  const { title, named, onChoose, list, columns, empty, sort, note } = props;
  const { name, field } = useEstate(named, onChoose);
  const asking = useListOrder(sort);
  const page = useQuery({ ...list(name, asking.order), enabled: name !== '' });
  return (
    <>
      <div className="head">
        <PageTitle>{title}</PageTitle>
        {field}
        <span className="grow" />
        <SurveyEstate estate={name} />
      </div>
      {name !== '' && page.isPending && <Loading />}
      {page.error && <Failure error={page.error} />}
      {page.data && note?.(page.data)}
      {page.data && (
        <DataTable
          label={title}
          rows={page.data.items}
          columns={columns(name)}
          pages={{ asking, skipped: page.data.skipped, total: page.data.total }}
          empty={empty}
        />
      )}
    </>
  );
}
