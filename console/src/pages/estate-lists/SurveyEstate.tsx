import { Button } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { estate as estateQuery } from '../../api/queries';
import { useJob } from '../../api/useJob';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';
import { Time } from '../../parts/Time';
import { useMay } from '../../parts/useMay';

/** When an estate was read last, and the way to read it again; a survey changes nothing. */
export function SurveyEstate({ estate }: { estate: string }) {
  const read = useQuery({ ...estateQuery(estate), enabled: estate !== '' });
  const may = useMay('planner');
  const { followed, follow } = useJob();
  const survey = useMutation({
    mutationFn: () => need(api.POST('/api/estates/{name}/survey', { params: { path: { name: estate } } })),
    onSuccess: follow,
  });
  const running = followed?.running === true;
  return (
    <>
      <span className="soft">
        {read.data &&
          (read.data.survey ? (
            <>
              read <Time value={read.data.survey.takenAt} />
            </>
          ) : (
            'not surveyed yet'
          ))}
      </span>
      <Button
        variant="default"
        disabled={estate === '' || !may || running}
        loading={survey.isPending || running}
        onClick={() => survey.mutate()}
      >
        Survey
      </Button>
      <div role="status">
        {followed?.last && (running || followed.last.state !== 'done') && (
          <JobProgress event={followed.last} running={running} />
        )}
      </div>
      {survey.error && <Failure error={survey.error} />}
    </>
  );
}
