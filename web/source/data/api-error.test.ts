import { ApiError } from './api-error';

test.each([
  [0, undefined, true],
  [500, 'Something went wrong here.', true],
  [503, 'The database does not answer.', true],
  // A proxy's page is no answer of the server's.
  [404, undefined, true],
  [429, 'Too many requests.', true],
  [404, 'There is no system.', false],
  [422, 'The edit would break the system.', false],
])('an answer of %d with the reason %s passes: %s', (status, detail, passing) => {
  expect(new ApiError(status, detail ?? '', detail === undefined ? {} : { detail }).passing).toBe(passing);
});
