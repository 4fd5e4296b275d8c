import priorsFile from './priors.json' with { type: 'json' };

/** How often one fault is met against another: the library's odds, times what a shop has learned. */
export type Weights = (fault: string) => number;

const shipped: Record<string, number> = priorsFile.weights;
export const libraryWeight: Weights = (fault) => shipped[fault] ?? priorsFile.usual;
