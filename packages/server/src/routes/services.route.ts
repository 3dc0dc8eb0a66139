import { checkService, SECRET_NAME, type Service } from "@bibliotope/core/service";
import type { HeldService, ServiceSummary } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Incoming } from "../http/incoming.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import type { Sealing } from "../services/sealing.ts";
import * as repository from "../services/services.repository.ts";
import type { Services } from "../services/services.ts";
import { readWsdl as operationsOf } from "../services/wsdl.ts";

/** Asks an outside service for a form. */
export function serviceHandlers(services: Services) {
  return { service } satisfies Partial<Handlers>;

  async function service(incoming: Incoming<"service">): Promise<Reply> {
    const began = performance.now();
    const answer = await services.ask(incoming.parts.name, incoming.params, incoming.key.id, incoming.situation);
    return jsonReply(incoming, answer, began);
  }
}

interface Needs {
  database: Knex;
  services: Services;
  sealing: Sealing;
}

/** Outside services as they are described, the hosts that may be called, and secrets, which are never returned. */
export function serviceRoutes({ database, services, sealing }: Needs) {
  return {
    services: list,
    service,
    saveService,
    dropService,
    tryService,
    readWsdl,
    secrets,
    setSecret,
    dropSecret,
    hosts,
    allowHost,
    refuseHost,
  } satisfies Partial<OwnHandlers>;

  async function list() {
    const using = await repository.formsUsing(database);
    return {
      services: services.all.map(
        ({ service: { name, title, ask, register, inputs, values }, revision, savedAt, state }): ServiceSummary => ({
          ...{ name, title, by: ask.by, host: hostOf(ask.url), isRegister: Boolean(register), revision, state },
          inputs,
          values: values.map(({ name: value, kind, isList }) => ({ name: value, kind, ...(isList ? { isList } : {}) })),
          savedAt: savedAt.toISOString(),
          forms: using.get(name) ?? [],
        }),
      ),
    };
  }

  async function service({ parts }: Own<"service">) {
    return heldService(parts.name);
  }

  async function saveService({ params, parts }: Own<"saveService">) {
    if (params.service.name !== parts.name)
      throw new HttpProblem("malformed", "The name does not match the path.", [
        { parameter: "name", message: "does not match the path" },
      ]);
    refuseWrong(params.service);
    if ((await repository.saveService(database, params.service, params.revision ?? 0)) === undefined)
      throw new HttpProblem(
        "conflict",
        params.revision
          ? "The service was saved elsewhere in the meantime. Reload it to see that change."
          : `There is already a service “${parts.name}”.`,
      );
    await services.refresh();
    return heldService(parts.name);
  }

  async function dropService({ parts }: Own<"dropService">) {
    const forms = (await repository.formsUsing(database)).get(parts.name) ?? [];
    if (forms.length)
      throw new HttpProblem("conflict", `It is used by ${forms.map(({ title }) => `“${title}”`).join(", ")}.`);
    if (!(await repository.dropService(database, parts.name))) throw noService();
    await services.refresh();
  }

  async function tryService({ params, parts, user }: Own<"tryService">) {
    // where a secret is sent is for those to say who set it
    const service = user.role === "manage" ? params.service : services.find(parts.name)?.service;
    if (!service) throw noService();
    refuseWrong(service);
    return services.try(service, params.inputs);
  }

  function readWsdl({ params }: Own<"readWsdl">) {
    return operationsOf(params.wsdl);
  }

  function secrets() {
    return { secrets: services.secrets };
  }

  async function setSecret({ params, parts }: Own<"setSecret">) {
    if (!SECRET_NAME.test(parts.name))
      throw new HttpProblem("malformed", "name: lowercase letters, digits and -, starting with a letter.");
    await repository.setSecret(database, parts.name, sealing.seal(parts.name, params.value));
    await services.refresh();
  }

  async function dropSecret({ parts }: Own<"dropSecret">) {
    const using = services.secrets.find(({ name }) => name === parts.name)?.services ?? [];
    if (using.length) throw new HttpProblem("conflict", `It is used by ${using.join(", ")}.`);
    if (!(await repository.dropSecret(database, parts.name)))
      throw new HttpProblem("not-found", "There is no secret with this name.");
    await services.refresh();
  }

  function hosts() {
    return { hosts: [...services.hosts] };
  }

  async function allowHost({ params }: Own<"allowHost">) {
    await repository.allowHost(database, params);
    await services.refresh();
    return hosts();
  }

  async function refuseHost({ id }: Own<"refuseHost">) {
    if (!(await repository.refuseHost(database, id()))) throw new HttpProblem("not-found", "There is no such host.");
    await services.refresh();
  }

  function heldService(name: string): HeldService {
    const found = services.find(name);
    if (!found) throw noService();
    const { service: described, revision, savedAt } = found;
    return {
      ...{ service: described, revision, savedAt: savedAt.toISOString() },
      isAllowed: services.isAllowed(described),
    };
  }
}

const noService = () => new HttpProblem("not-found", "There is no service with this name.");

/** Scheme and host of an address, as people read it. */
const hostOf = (url: string) => /^\w+:\/\/[^/?#]+/.exec(url)?.[0] ?? url;

/** @throws HttpProblem with what is wrong with a description, and where */
function refuseWrong(service: Service): void {
  const issues = checkService(service).map(({ where, message }) => ({ parameter: where, message }));
  if (!issues.length) return;
  const words = issues.map(({ parameter, message }) => `${parameter}: ${message}`);
  throw new HttpProblem("malformed", `${words.slice(0, 10).join("; ")}.`, issues.slice(0, 10));
}
