import '../../../threadStart.mjs';
await import('./readThread.ts');
