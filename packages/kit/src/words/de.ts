import type { Words } from "./say.ts";

/** German. */
const words: Words = {
  lang: "de",
  words: {
    Suggestions: "Vorschläge",
    "{n} suggestion.|{n} suggestions.": { one: "{n} Vorschlag.", other: "{n} Vorschläge." },
    "No suggestions.": "Keine Vorschläge.",
    "Its numbers: right arrow": "Ihre Hausnummern: Pfeil nach rechts",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Nichts gefunden. Prüfen Sie die Schreibung, oder tippen Sie die Adresse von Hand.",
    "The address search does not work at the moment.": "Die Adresssuche geht im Augenblick nicht.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "Die Adresssuche ist nicht zu erreichen. Prüfen Sie die Verbindung, oder tippen Sie die Adresse von Hand.",
    "The address search takes too long. Try again, or type the address by hand.":
      "Die Adresssuche braucht zu lange. Versuchen Sie es noch einmal, oder tippen Sie die Adresse von Hand.",
    "The address search may not be used on this page.": "Die Adresssuche darf auf dieser Seite nicht benutzt werden.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Gerade wird zu viel gesucht. Warten Sie einen Moment, oder tippen Sie die Adresse von Hand.",
    "The address search did not understand this. Type the address by hand.":
      "Die Adresssuche hat das nicht verstanden. Tippen Sie die Adresse von Hand.",
    "This address is no longer there. Choose another.": "Diese Adresse gibt es nicht mehr. Wählen Sie eine andere.",
    "The address search does not work at the moment. Type the address by hand.":
      "Die Adresssuche geht im Augenblick nicht. Tippen Sie die Adresse von Hand.",
    street: "Straße",
    block: "Block",
    postcode: "Postleitzahl",
    place: "Ort mit Namen",
    district: "Ortsteil",
    town: "Ort",
    county: "Kreis",
    region: "Region",
    country: "Land",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} Adresse passt. Ist es diese?",
      other: "{n} Adressen passen. Welche ist es?",
    },
    "Use what I typed": "Nehmen, was ich getippt habe",
    "Another address": "Eine andere Adresse",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Nichts gefunden. Prüfen Sie die Schreibung, oder bleiben Sie bei dem, was Sie getippt haben.",
    "Finding this device …": "Dieses Gerät wird gesucht …",
    "No address lies near this device. Type it, or press the map.":
      "In der Nähe dieses Geräts liegt keine Adresse. Tippen Sie sie, oder zeigen Sie auf die Karte.",
    "This device is within {length} of here.": "Dieses Gerät ist höchstens {length} von hier.",
    "Is it this place?": "Ist es dieser Ort?",
    "Is it this address?": "Ist es diese Adresse?",
    "No address lies near this spot.": "In der Nähe dieser Stelle liegt keine Adresse.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Gefunden, aber nur {where}. Zeigen Sie das Haus auf der Karte, wenn Sie können.",
    "at the house itself": "am Haus selbst",
    "between the houses beside it": "zwischen den Häusern daneben",
    "somewhere on the street": "irgendwo an der Straße",
    "in the middle of the area": "in der Mitte des Gebiets",
    "The picture stands here once the place is known.": "Hier steht das Bild, sobald der Ort bekannt ist.",
    "The picture did not come.": "Das Bild ist nicht gekommen.",
    "Map of {place}": "Karte von {place}",
    "Map of the place": "Karte des Orts",
    Choose: "Wählen",
    Unit: "Einheit",
    "known once both ends are": "bekannt, sobald beide Enden es sind",
    "This browser cannot say where the device is.": "Dieser Browser kann nicht sagen, wo das Gerät ist.",
    "Type the address, or put the marker where it is.":
      "Tippen Sie die Adresse, oder setzen Sie die Marke an die Stelle.",
    "The position is only told to pages that came over a safe connection.":
      "Den Standort erfahren nur Seiten, die über eine sichere Verbindung kamen.",
    "Open the page by https, or type the address.": "Öffnen Sie die Seite über https, oder tippen Sie die Adresse.",
    "This page may not know where the device is.": "Diese Seite darf nicht wissen, wo das Gerät ist.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Erlauben Sie es dieser Seite in den Einstellungen des Browsers, oder tippen Sie die Adresse.",
    "The device does not know where it is.": "Das Gerät weiß nicht, wo es ist.",
    "Switch its position on, or type the address.": "Schalten Sie den Standort ein, oder tippen Sie die Adresse.",
    "Finding the device took too long.": "Das Gerät zu finden dauerte zu lange.",
    "Try again, best near a window, or type the address.":
      "Versuchen Sie es noch einmal, am besten am Fenster, oder tippen Sie die Adresse.",
    "The device is only known to be within {length} of here.":
      "Vom Gerät ist nur bekannt, dass es höchstens {length} von hier ist.",
    "Put the marker on the right house.": "Setzen Sie die Marke auf das richtige Haus.",
    Streets: "Straßen",
    Ground: "Gelände",
    Heights: "Höhen",
    "Ground with streets": "Gelände mit Straßen",
    "Zoom in": "Näher",
    "Zoom out": "Weiter weg",
    "Kind of sheet": "Art des Blatts",
    "Move the map under an aim": "Die Karte unter einem Ziel bewegen",
    "Show it in relief": "Als Relief zeigen",
    "Show where this device is": "Zeigen, wo dieses Gerät ist",
    "Parts of the map did not come. They are asked for again.":
      "Teile der Karte sind nicht gekommen. Nach ihnen wird noch einmal gefragt.",
    "Take this address": "Diese Adresse nehmen",
    Markers: "Marken",
    Close: "Schließen",
    "Open in a map application": "In einer Karten-App öffnen",
    "The way there": "Der Weg dorthin",
    "Copy coordinates": "Koordinaten kopieren",
    "Copied: {text}": "Kopiert: {text}",
    "No map application answered. Copied instead: {text}":
      "Keine Karten-App hat geantwortet. Stattdessen kopiert: {text}",
    "The coordinates: {text}": "Die Koordinaten: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Pfeiltasten bewegen die Karte, Plus und Minus zoomen, Eingabe nimmt die Adresse in der Mitte.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, {length} breit, um {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, um {lat}, {lon}.",
    "{n}° north": "{n}° Nord",
    "{n}° south": "{n}° Süd",
    "{n}° east": "{n}° Ost",
    "{n}° west": "{n}° West",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} Marke steht auf der Karte.",
      other: "{n} Marken stehen auf der Karte.",
    },
    "A marker stands at {places}.": "Eine Marke steht bei {places}.",
    "This place has no position yet.": "Dieser Ort hat noch keine Position.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} von {all} Orten hat noch keine Position.",
      other: "{n} von {all} Orten haben noch keine Position.",
    },
    "Marker {n}": "Marke {n}",
    "{n} of {all}": "{n} von {all}",
    "Enter opens": "Eingabe öffnet",
    "M moves": "M bewegt",
    "arrows move, with Shift by little": "Pfeile bewegen, mit Umschalt um wenig",
    "Enter drops": "Eingabe setzt ab",
    "Esc puts back": "Esc setzt zurück",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} als Relief. Pfeiltasten drehen und neigen es, Plus und Minus gehen näher und weiter weg, N dreht nach Norden, 0 schaut senkrecht hinab, Escape geht zurück zur flachen Karte.",
    "Flat map": "Flache Karte",
    "Straight down": "Senkrecht hinab",
    "North up": "Norden oben",
    "Preparing the relief …": "Das Relief wird vorbereitet …",
    "{n} m above the sea": "{n} m über dem Meer",
    "{place}, {n} m above the sea": "{place}, {n} m über dem Meer",
    "The relief did not come.": "Das Relief ist nicht gekommen.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Was das Relief zeichnet, ist nicht gekommen. Prüfen Sie die Verbindung, und versuchen Sie es noch einmal.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Dieser Browser kann das Gelände nicht als Relief zeichnen. Die flache Karte bleibt.",
    "Something is wrong with this address": "Mit dieser Adresse stimmt etwas nicht",
    "What is wrong?": "Was stimmt nicht?",
    Send: "Senden",
    "Leave it": "Lassen",
    "Thank you. Somebody will look at it.": "Danke. Jemand sieht es sich an.",
  },
};

export default words;
