/** One thing that is wrong in a file; see RFC 9457 for the problem around it. */
export interface FaultView {
  file: string;
  line: number;
  column: number;
  field: string;
  message: string;
  expected?: string | null;
  nearest?: string | null;
}

export interface Problem {
  title: string;
  detail?: string | null;
  faults?: FaultView[] | null;
}
