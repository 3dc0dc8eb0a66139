import { Component, CUSTOM_ELEMENTS_SCHEMA, computed, resource, signal } from "@angular/core";
import { FormControl, FormGroup, ReactiveFormsModule } from "@angular/forms";
import type { RecordFeature } from "@bibliotope/kit/client";
import { client, url, webKey } from "./service";

/** A reactive form whose controls the search element fills, a lookup as a resource, and a marker on the map element. */
@Component({
  selector: "members-app",
  imports: [ReactiveFormsModule],
  schemas: [CUSTOM_ELEMENTS_SCHEMA],
  template: `
    <main>
      <h1>Members</h1>
      <form aria-label="By tokens" [formGroup]="member">
        <bibliotope-search
          [attr.url]="url"
          [attr.web-key]="webKey"
          name="find"
          label="Find your address"
          fills
          (bibliotope-found)="found($event)"
          (bibliotope-lost)="place.set(undefined)"
        ></bibliotope-search>
        <label>Street <input formControlName="street" name="street" autocomplete="address-line1" /></label>
        <label>Town <input formControlName="town" name="town" autocomplete="address-level2" /></label>
        <label>Postcode <input formControlName="postcode" name="postcode" autocomplete="postal-code" /></label>
      </form>
      <p role="status">{{ place() ? "Chosen: " + place()!.properties.line : "No place yet" }}</p>
      @if (height.error()) {
        <p role="alert">{{ height.error()!.message }}</p>
      } @else if (metres() !== undefined) {
        <p>{{ metres() }} m above the sea</p>
      }
      <p>In the form: {{ member.value.town || "no town" }}</p>
      <bibliotope-map [attr.url]="url" [attr.web-key]="webKey" label="Where it is" [markers]="markers()"></bibliotope-map>
    </main>
  `,
})
export class App {
  protected readonly url = url;
  protected readonly webKey = webKey;
  protected readonly member = new FormGroup({
    street: new FormControl(""),
    town: new FormControl(""),
    postcode: new FormControl(""),
  });
  protected readonly place = signal<RecordFeature | undefined>(undefined);
  protected readonly markers = computed(() => {
    const place = this.place();
    return place ? [{ at: place.properties.at, label: place.properties.line }] : [];
  });
  /** A lookup without a box: asked again whenever the place changes. */
  protected readonly height = resource({
    params: () => this.place()?.properties.at,
    loader: async ({ params, abortSignal }) => (await client.height(params, abortSignal)).metres,
  });
  protected readonly metres = computed(() => {
    const height = this.height.hasValue() ? this.height.value() : undefined;
    return typeof height === "number" ? Math.round(height) : undefined;
  });

  protected found(event: Event): void {
    this.place.set((event as CustomEvent<RecordFeature>).detail);
  }
}
