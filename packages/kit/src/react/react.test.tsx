import { renderToString } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { AddressForm, BibliotopeProvider, DefinedForm, MapView, SearchField, Still, useClient } from "./index.ts";

const Bare = () => <p>{useClient().options.key}</p>;

/** On a server there is no document: nothing here may need one. */
describe("the components on a server", () => {
  const rendered = (what: React.ReactNode) =>
    renderToString(
      <BibliotopeProvider url="https://maps.example" webKey="bt_web_x">
        {what}
      </BibliotopeProvider>,
    );

  it("have their fields with what assistive technology needs, before any script runs", () => {
    const html = rendered(<SearchField label="Find your address" name="find" text="12 Harbour Row" required />);
    expect(html).toMatch(/<label for="([^"]+)">Find your address<\/label>.*<input required="" id="\1" role="combobox"/);
    expect(html).toContain('name="find" value="12 Harbour Row"/>');
    expect(html).toContain('aria-expanded="false"');
    expect(html).toMatch(/<ul class="bt-list" data-bibliotope="suggestions" role="listbox" [^>]*hidden=""/);
    expect(html).toContain('<input type="hidden" name="find-ref" value=""/>');
  });

  it("hand attributes of an input on to it, and describe it by what the page has and what the search says", () => {
    const html = rendered(
      <SearchField label="Address" id="home" aria-describedby="help" data-testid="x" maxLength={80} autoFocus />,
    );
    expect(html).toContain('<label for="home">Address</label>');
    expect(html).toMatch(
      /<input data-testid="x" maxLength="80" autofocus="" id="home" aria-describedby="help" role="combobox"/,
    );
  });

  it("leave room for what only a browser draws", () => {
    expect(rendered(<MapView label="Where" className="map" />)).toBe('<div class="map"></div>');
    expect(rendered(<DefinedForm definition={{ title: "", fields: [] }} className="form" />)).toBe(
      '<div class="form"></div>',
    );
    expect(rendered(<AddressForm aria-label="A">x</AddressForm>)).toBe('<form aria-label="A">x</form>');
  });

  it("ask for a picture by its whole address", () => {
    const html = rendered(<Still of={{ of: "qr-1" }} alt="Map" />);
    expect(html).toContain(
      "https://maps.example/v1/still?width=300&amp;height=200&amp;density=2&amp;of=qr-1&amp;access_token=bt_web_x",
    );
    expect(html).toContain('crossorigin="anonymous"');
  });

  it("say it when there is no provider around", () => {
    expect(() => renderToString(<Bare />)).toThrow("There is no BibliotopeProvider around this component.");
  });
});
