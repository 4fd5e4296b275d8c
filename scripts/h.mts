import { healthyDrives } from './healthyDrives';
const t=performance.now(); console.log(healthyDrives(10000, 11), (performance.now()-t)/1000);
