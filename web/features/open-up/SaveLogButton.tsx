import { logFileText } from '@zugluft/core/service/logFile';
import { useMachineFile } from '../../documents/record/MachineFile';
import { machineName } from '../../documents/record/machineName';
import { useOpenUp } from './OpenUpLog';

/** The log as a file of the open format; made in the page, so that it works while the server is away. */
export function SaveLogButton() {
  const { draft } = useMachineFile();
  const { log } = useOpenUp();
  const save = () => {
    const { name, variant } = machineName(draft);
    const url = URL.createObjectURL(new Blob([logFileText(log)], { type: 'application/json' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${`${name} ${variant}`
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .slice(0, 80)}-opening.json`;
    link.click();
    // the browser has taken it by then
    setTimeout(() => URL.revokeObjectURL(url), 1000);
  };
  return (
    <button type="button" className="btn btn-sm" onClick={save}>
      Save the log
    </button>
  );
}
