import { isWorkerScript } from './trusted-scripts';

describe('a script that the page may run', () => {
  it.each([
    ['/worker-6VR7RBIP.js', true],
    ['http://127.0.0.1:4310/worker-6VR7RBIP.js', true],
    ['http://127.0.0.1:4311/worker-6VR7RBIP.js', false],
    ['https://elsewhere.example/worker-6VR7RBIP.js', false],
    ['/api/assets/worker-6VR7RBIP.js', false],
    ['/main-4KSFOL4K.js', false],
    ['data:text/javascript,1', false],
    ['blob:http://127.0.0.1:4310/worker-6VR7RBIP.js', false],
  ])('%s: %s', (url, may) => {
    expect(isWorkerScript(url, 'http://127.0.0.1:4310/c/demo/layout/hall?x=1')).toBe(may);
  });
});
