/** The running number of a case as people have it: TP-0418. */
export const caseNumber = (number: number): string => `TP-${String(number).padStart(4, '0')}`;
