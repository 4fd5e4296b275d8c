// One of the helpers among whom a trial's vehicles are shared out.
import { parentPort, workerData } from 'node:worker_threads';
import { workOn, type Trial } from './trialCases';

const { trial, part, of } = workerData as { trial: Trial; part: number; of: number };
for (const worked of workOn(trial, part, of)) parentPort?.postMessage(worked);
