/** RFC 9457 problem document with a field per broken rule. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail?: string;
  requestId?: string;
  errors?: readonly FieldProblem[];
}

/** One broken rule: the field's dotted path, a stable code, and words for the person at the form. */
export interface FieldProblem {
  readonly field: string;
  readonly code: string;
  readonly message: string;
}
