import { Recent } from './recent.ts';

test('the last few are kept, each as it was made last, and those long before are let go', () => {
  const recent = new Recent<string, number>(2);
  recent.keep('a', 1);
  recent.keep('b', 2);
  recent.keep('a', 3);
  expect([recent.get('a'), recent.get('b')]).toEqual([3, 2]);
  recent.keep('c', 4);
  recent.keep('a', 5);
  recent.keep('d', 6);
  expect(['a', 'b', 'c', 'd'].map((key) => recent.get(key))).toEqual([5, undefined, 4, 6]);
});
