import { Failure } from './Failure';
import { Loading } from './Loading';
import { PageTitle } from './PageTitle';

/** The page of one thing while that is on its way, or where it could not be had: what it is of stands at its head all the same. */
export function PageWithout({ title, error }: { title: string; error: Error | null }) {
  return (
    <>
      <div className="head">
        <PageTitle>{title}</PageTitle>
      </div>
      {error ? <Failure error={error} /> : <Loading />}
    </>
  );
}
