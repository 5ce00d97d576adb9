import '../threadStart.mjs';
await import('./pdfThread.ts');
