import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { createMachine } from '../api/machines';
import { beginMachine } from './record/freshMachine';
import { Kbd } from '../kit/Kbd';

/** An empty library: three ways to begin. */
export function EmptyLibrary({
  exchange,
}: {
  /** Opens import and export. */
  exchange: () => void;
}) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const example = useMutation({
    // fetched only when asked for
    mutationFn: async () =>
      createMachine((await import('../../examples/two-fan-shared-pipes.json')).default),
    onSuccess: ({ id }) => {
      void client.invalidateQueries({ queryKey: ['machines'] });
      void navigate(`/machines/${id}/cooling`);
    },
  });
  return (
    <>
      <p className="text-ink">The library is empty. Begin with</p>
      <p className="flex flex-wrap justify-center gap-3 py-3">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          onClick={() => beginMachine(navigate, 'count')}
        >
          Quick count <Kbd>q</Kbd>
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={example.isPending}
          onClick={() => example.mutate()}
        >
          An example
        </button>
        <button type="button" className="btn btn-sm" onClick={exchange}>
          Import <Kbd>x</Kbd>
        </button>
      </p>
      <p>
        A quick count of fans, fins and pipes gives a first answer in a minute; a table with a
        machine a row can be imported.
      </p>
      {example.error && (
        <p role="alert" className="text-heat">
          The example could not be added: {example.error.message}
        </p>
      )}
    </>
  );
}
