import type { FileAnswer, FileStart } from "@bibliotope/wire";
import { useForm } from "react-hook-form";
import { useNavigate } from "react-router";
import { useDataQuery, useMakeLoadMutation } from "../state/data-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { TextField } from "../ui/TextField.tsx";

/** What the data is called, where it comes from, of which day, under which licence: in every answer. */
export function AboutData({ file, start }: { file: FileAnswer; start: FileStart }) {
  const { data } = useDataQuery();
  const [load, { error, isLoading }] = useMakeLoadMutation();
  const navigate = useNavigate();
  const { register, handleSubmit, watch } = useForm({
    defaultValues: {
      name: file.name.replace(/\.(csv|tsv|txt|geojson|json|ndjson|gz)(?=\.|$)/gi, ""),
      source: "",
      licence: "",
      day: new Date().toISOString().slice(0, 10),
    },
  });
  const known = data?.dataSets.find(({ name }) => name === watch("name").trim());
  const submit = handleSubmit(async ({ day, name, source, licence }) => {
    const { format, heads, reading } = start;
    const dataSet = { name, source: source || (known?.source ?? ""), licence: licence || (known?.licence ?? "") };
    const params = { file: file.id, format, heads, reading, dataSet, day };
    if ("data" in (await load(params))) await navigate("/data");
  });
  return (
    <section aria-label="About the data" className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">About the data</h2>
      <p className="text-quiet">Every result from this data carries this information.</p>
      <form onSubmit={submit} className="mt-3 grid max-w-[46rem] gap-3 sm:grid-cols-2">
        <TextField label="Data set" required maxLength={120} list="data-sets" {...register("name")} />
        <datalist id="data-sets">
          {data?.dataSets.map(({ id, name }) => (
            <option key={id} value={name} />
          ))}
        </datalist>
        <TextField label="Data date" type="date" required {...register("day")} />
        <TextField
          label="Source"
          maxLength={200}
          placeholder={known?.source || "Who publishes it"}
          {...register("source")}
        />
        <TextField
          label="Licence"
          required={!known}
          maxLength={120}
          placeholder={known?.licence ?? "For example, CC0-1.0"}
          {...register("licence")}
        />
        <p className="text-[13px] text-quiet sm:col-span-2">
          {known
            ? `A new version of “${known.name}”. Addresses that have not changed keep their refs.`
            : "A new data set. Enter the name of an existing one to add a new version of it."}
        </p>
        <Alert error={error} className="text-madder sm:col-span-2" />
        <div className="sm:col-span-2">
          <Button strong type="submit" disabled={isLoading}>
            Import as a draft
          </Button>
        </div>
      </form>
    </section>
  );
}
