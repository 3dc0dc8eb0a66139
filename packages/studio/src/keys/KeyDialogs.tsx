import { KEY_KINDS, type KeyKind, type KeySummary } from "@bibliotope/wire";
import { type ReactNode, useState } from "react";
import { useForm } from "react-hook-form";
import {
  useChangeKeyMutation,
  useMakeKeyMutation,
  useReplaceKeyMutation,
  useWithdrawKeyMutation,
  wordsOf,
} from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { Dialog, DialogClose } from "../ui/Dialog.tsx";
import { draftOf, NO_RULES, type RulesDraft, RulesFields, rulesOf } from "./RulesFields.tsx";
import { ShownOnce } from "./ShownOnce.tsx";
import { KIND_WORDS } from "./words.ts";

const LINK = "underline";

function Wrong({ error }: { error: unknown }) {
  return error ? (
    <p role="alert" className="mt-3 text-madder">
      {wordsOf(error)}
    </p>
  ) : null;
}

/** What is done, and the way out. */
function Foot({ children }: { children: ReactNode }) {
  return (
    <div className="mt-4 flex gap-2">
      {children}
      <DialogClose asChild>
        <Button>Cancel</Button>
      </DialogClose>
    </div>
  );
}

interface MakeKeyProps {
  /** Words on what opens it. */
  words?: string;
  /** Rules to begin with; none when not given. */
  proposed?: Partial<RulesDraft>;
  /** What is proposed, and why, for the person who decides. */
  why?: string;
}

/** Makes a key. */
export function MakeKey({ words = "New key", proposed, why }: MakeKeyProps) {
  const [open, setOpen] = useState(false);
  const { register, handleSubmit, reset: resetRules } = useForm<RulesDraft>();
  const [kind, setKind] = useState<KeyKind>("web");
  const [make, { data: made, error, isLoading, reset }] = useMakeKeyMutation();
  const toggle = (is: boolean) => {
    setOpen(is);
    resetRules({ ...NO_RULES, ...proposed });
    reset();
  };
  const submit = handleSubmit((rules) => void make({ kind, ...rulesOf(rules, kind) }));
  return (
    <Dialog
      title={made ? `The key “${made.name}”` : "New key"}
      open={open}
      onOpenChange={toggle}
      size="large"
      trigger={<Button strong={!proposed}>{words}</Button>}
    >
      {made ? (
        <ShownOnce made={made} />
      ) : (
        <form onSubmit={submit}>
          {why ? <p className="mt-2 text-quiet">{why}</p> : null}
          <fieldset className="mt-3">
            <legend className="mb-1 text-[12.5px] text-quiet">For</legend>
            <div className="flex flex-wrap gap-x-5 gap-y-1">
              {KEY_KINDS.map((one) => (
                <label key={one} className="inline-flex items-center gap-1.5">
                  <input type="radio" name="kind" checked={kind === one} onChange={() => setKind(one)} />
                  {KIND_WORDS[one].name}
                </label>
              ))}
            </div>
            <p className="mt-1 text-[12.5px] text-quiet">{KIND_WORDS[kind].use}</p>
          </fieldset>
          <RulesFields kind={kind} register={register} />
          <Wrong error={error} />
          <Foot>
            <Button strong type="submit" disabled={isLoading}>
              Create key
            </Button>
          </Foot>
        </form>
      )}
    </Dialog>
  );
}

/** Changes what a key may be used for. */
export function ChangeKey({ existing: known }: { existing: KeySummary }) {
  const [open, setOpen] = useState(false);
  const { register, handleSubmit, reset } = useForm<RulesDraft>();
  const [change, { error, isLoading }] = useChangeKeyMutation();
  const toggle = (is: boolean) => {
    setOpen(is);
    reset(draftOf(known));
  };
  const submit = handleSubmit((rules) =>
    change({ id: known.id, rules: rulesOf(rules, known.kind) })
      .unwrap()
      .then(
        () => setOpen(false),
        () => undefined,
      ),
  );
  return (
    <Dialog
      title={`Change “${known.name}”`}
      open={open}
      onOpenChange={toggle}
      size="large"
      trigger={
        <button type="button" className={LINK}>
          Change<span className="sr-only"> {known.name}</span>
        </button>
      }
    >
      <form onSubmit={submit}>
        <RulesFields kind={known.kind} register={register} />
        <Wrong error={error} />
        <Foot>
          <Button strong type="submit" disabled={isLoading}>
            Save
          </Button>
        </Foot>
      </form>
    </Dialog>
  );
}

/** Hours for which both keys work. */
const OVERLAPS = [
  [0, "not at all; it stops working now"],
  [24, "one day"],
  [24 * 7, "one week"],
  [24 * 30, "30 days"],
] as const;

/** Puts another key in the place of one. */
export function ReplaceKey({ existing: known }: { existing: KeySummary }) {
  const [open, setOpen] = useState(false);
  const [overlap, setOverlap] = useState<number>(24 * 7);
  const [replace, { data: made, error, isLoading, reset }] = useReplaceKeyMutation();
  const toggle = (is: boolean) => {
    setOpen(is);
    reset();
  };
  return (
    <Dialog
      title={`Replace “${known.name}”`}
      open={open}
      onOpenChange={toggle}
      trigger={
        <button type="button" className={LINK}>
          Replace<span className="sr-only"> {known.name}</span>
        </button>
      }
    >
      {made ? (
        <ShownOnce made={made} />
      ) : (
        <>
          <label className="mt-3 block">
            How long the old key keeps working
            <select
              className="mt-1 h-[34px] w-full rounded border border-edge bg-field px-2"
              value={overlap}
              onChange={(event) => setOverlap(Number(event.target.value))}
            >
              {OVERLAPS.map(([hours, words]) => (
                <option key={hours} value={hours}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <Wrong error={error} />
          <Foot>
            <Button strong disabled={isLoading} onClick={() => void replace({ id: known.id, overlap })}>
              Replace key
            </Button>
          </Foot>
        </>
      )}
    </Dialog>
  );
}

/** Withdraws a key, after asking whether that is meant. */
export function WithdrawKey({ existing: known }: { existing: KeySummary }) {
  const [open, setOpen] = useState(false);
  const [withdraw, { error, isLoading }] = useWithdrawKeyMutation();
  return (
    <Dialog
      title={`Revoke “${known.name}”`}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className={LINK}>
          Revoke<span className="sr-only"> {known.name}</span>
        </button>
      }
    >
      <p className="mt-3">Everything that uses this key stops working at once. This cannot be undone.</p>
      <Wrong error={error} />
      <Foot>
        <Button strong disabled={isLoading} onClick={() => void withdraw(known.id)}>
          Revoke key
        </Button>
      </Foot>
    </Dialog>
  );
}
