import type { RequestHandler } from 'express';
import { addressesOf, OPENAPI } from './openapi';
import { notFound, Refusal } from './refusal';

/** What can be done at addresses of the protocol, by what they look like. */
const DESCRIBED = Object.entries(OPENAPI.paths).map(([path, operations]) => ({
  looks: addressesOf(path),
  methods: Object.keys(operations).map(method => method.toUpperCase()),
}));

/** Addresses that lead nowhere, and what cannot be done at those that lead somewhere. */
export const unknownPath: RequestHandler = (request, response) => {
  const { method } = request;
  const path = request.baseUrl + request.path;
  const methods = DESCRIBED.find(({ looks }) => looks.test(path))?.methods;
  if (!methods) throw notFound(`There is nothing at ${method} ${path}.`);
  response.set('Allow', methods.join(', '));
  throw new Refusal(
    405,
    'method-not-allowed',
    'Not to be done here',
    `At ${path} there is ${methods.join(' and ')}, no ${method}.`,
  );
};
