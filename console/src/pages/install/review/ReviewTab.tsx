import { Button, Group } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { fit as fitQuery, reviews as reviewsQuery } from '../../../api/queries';
import { Failure } from '../../../parts/Failure';
import { Loading } from '../../../parts/Loading';
import { Exceptions } from './Exceptions';
import { EarlierReviews } from './EarlierReviews';
import { offOf } from './off';
import { OffTable } from './OffTable';
import { WriteReview } from './WriteReview';
import { useMay } from '../../../parts/useMay';

const files = [
  { form: 'html', label: 'Review sheet' },
  { form: 'xlsx', label: 'Workbook' },
  { form: 'csv', label: 'CSV' },
  { form: 'markdown', label: 'Markdown' },
];

/** What is off, what of it was accepted by whom until when, and who looked? */
export function ReviewTab({ install }: { install: string }) {
  const reviews = useQuery(reviewsQuery(install));
  const fit = useQuery(fitQuery(install));
  const mayAccept = useMay('granter');
  const mayWrite = useMay('planner');
  const path = `/api/installs/${encodeURIComponent(install)}`;
  return (
    <>
      <Group gap="xs" role="group" aria-label="Files">
        <span className="soft">Save as</span>
        {files.map((f) => (
          <Button
            key={f.form}
            component="a"
            size="compact-sm"
            variant="default"
            href={`${path}/report?form=${f.form}`}
            download
          >
            {f.label}
          </Button>
        ))}
        <Button component="a" size="compact-sm" variant="default" href={`${path}/evidence`} download>
          Signed evidence
        </Button>
      </Group>
      {fit.isPending && <Loading />}
      {fit.error && <Failure error={fit.error} />}
      {fit.data && <OffTable install={install} off={offOf(fit.data)} mayAccept={mayAccept} />}
      <Exceptions install={install} mayEnd={mayAccept} />
      <WriteReview install={install} mayWrite={mayWrite} />
      {reviews.isPending && <Loading />}
      {reviews.error && <Failure error={reviews.error} />}
      {reviews.data && <EarlierReviews reviews={reviews.data} />}
    </>
  );
}
