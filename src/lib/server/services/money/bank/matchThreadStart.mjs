import '../../../threadStart.mjs';
await import('./matchThread.ts');
