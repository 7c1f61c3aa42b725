import { useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { worklist as worklistQuery } from '../../api/queries';
import type { HostServiceAskedView, HostServiceView } from '../../api/schema.gen';
import { ready } from '../install/chosenSteps';
import { MakeStep } from '../install/MakeStep';

/** Sets a service to the account that an install asks for, where a step of its worklist does that, after a confirmation. */
export function SetRunAs({ service, asked }: { service: HostServiceView; asked: HostServiceAskedView }) {
  const navigate = useNavigate();
  const list = useQuery(worklistQuery(asked.install));
  const step = list.data && ready(list.data.give).find((s) => s.for.includes(asked.need));
  if (!list.data || !step) return null;
  return (
    <MakeStep
      list={list.data}
      step={step}
      words={() => `Set to ${asked.name}…`}
      of={service.name}
      follow={(run) => void navigate({ to: '/runs/$id', params: { id: run.id } })}
    />
  );
}
