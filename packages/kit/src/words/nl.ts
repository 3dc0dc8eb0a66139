import type { Words } from "./say.ts";

/** Dutch. */
const words: Words = {
  lang: "nl",
  words: {
    Suggestions: "Suggesties",
    "{n} suggestion.|{n} suggestions.": { one: "{n} suggestie.", other: "{n} suggesties." },
    "No suggestions.": "Geen suggesties.",
    "Its numbers: right arrow": "De nummers: pijl naar rechts",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Niets gevonden. Kijk de spelling na, of typ het adres met de hand.",
    "The address search does not work at the moment.": "Het zoeken van adressen werkt op dit moment niet.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "Het zoeken van adressen is niet te bereiken. Kijk de verbinding na, of typ het adres met de hand.",
    "The address search takes too long. Try again, or type the address by hand.":
      "Het zoeken van adressen duurt te lang. Probeer het opnieuw, of typ het adres met de hand.",
    "The address search may not be used on this page.":
      "Het zoeken van adressen mag op deze pagina niet worden gebruikt.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Er wordt nu te veel gezocht. Wacht even, of typ het adres met de hand.",
    "The address search did not understand this. Type the address by hand.":
      "Dit werd niet begrepen. Typ het adres met de hand.",
    "This address is no longer there. Choose another.": "Dit adres is er niet meer. Kies een ander.",
    "The address search does not work at the moment. Type the address by hand.":
      "Het zoeken van adressen werkt op dit moment niet. Typ het adres met de hand.",
    street: "straat",
    block: "blok",
    postcode: "postcode",
    place: "plek",
    district: "wijk",
    town: "plaats",
    county: "gemeente",
    region: "provincie",
    country: "land",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} adres past. Is het dit?",
      other: "{n} adressen passen. Welk is het?",
    },
    "Use what I typed": "Gebruik wat ik typte",
    "Another address": "Een ander adres",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Er is niets gevonden. Kijk de spelling na, of ga verder met wat u typte.",
    "Finding this device …": "Dit apparaat wordt gezocht …",
    "No address lies near this device. Type it, or press the map.":
      "Er ligt geen adres bij dit apparaat. Typ het, of wijs het aan op de kaart.",
    "This device is within {length} of here.": "Dit apparaat is binnen {length} van hier.",
    "Is it this place?": "Is het deze plek?",
    "Is it this address?": "Is het dit adres?",
    "No address lies near this spot.": "Er ligt geen adres bij dit punt.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Gevonden, maar alleen {where}. Wijs het huis op de kaart aan als u kunt.",
    "at the house itself": "bij het huis zelf",
    "between the houses beside it": "tussen de huizen ernaast",
    "somewhere on the street": "ergens in de straat",
    "in the middle of the area": "midden in het gebied",
    "The picture stands here once the place is known.": "Hier komt de afbeelding zodra de plek bekend is.",
    "The picture did not come.": "De afbeelding is niet gekomen.",
    "Map of {place}": "Kaart van {place}",
    "Map of the place": "Kaart van de plek",
    Choose: "Kiezen",
    Unit: "Eenheid",
    "known once both ends are": "bekend zodra beide einden dat zijn",
    "This browser cannot say where the device is.": "Deze browser kan niet zeggen waar het apparaat is.",
    "Type the address, or put the marker where it is.": "Typ het adres, of zet het merkteken waar het is.",
    "The position is only told to pages that came over a safe connection.":
      "De positie wordt alleen verteld aan pagina's die over een veilige verbinding kwamen.",
    "Open the page by https, or type the address.": "Open de pagina met https, of typ het adres.",
    "This page may not know where the device is.": "Deze pagina mag niet weten waar het apparaat is.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Sta het voor deze pagina toe in de instellingen van de browser, of typ het adres.",
    "The device does not know where it is.": "Het apparaat weet niet waar het is.",
    "Switch its position on, or type the address.": "Zet de positie aan, of typ het adres.",
    "Finding the device took too long.": "Het apparaat vinden duurde te lang.",
    "Try again, best near a window, or type the address.":
      "Probeer het opnieuw, het best bij een raam, of typ het adres.",
    "The device is only known to be within {length} of here.":
      "Van het apparaat is alleen bekend dat het binnen {length} van hier is.",
    "Put the marker on the right house.": "Zet het merkteken op het juiste huis.",
    Streets: "Straten",
    Ground: "Terrein",
    Heights: "Hoogten",
    "Ground with streets": "Terrein met straten",
    "Zoom in": "Dichterbij",
    "Zoom out": "Verder weg",
    "Kind of sheet": "Soort blad",
    "Move the map under an aim": "Beweeg de kaart onder een richtpunt",
    "Show it in relief": "Toon in reliëf",
    "Show where this device is": "Toon waar dit apparaat is",
    "Parts of the map did not come. They are asked for again.":
      "Delen van de kaart zijn niet gekomen. Ze worden opnieuw gevraagd.",
    "Take this address": "Neem dit adres",
    Markers: "Merktekens",
    Close: "Sluiten",
    "Open in a map application": "Open in een kaarttoepassing",
    "The way there": "De weg erheen",
    "Copy coordinates": "Kopieer de coördinaten",
    "Copied: {text}": "Gekopieerd: {text}",
    "No map application answered. Copied instead: {text}":
      "Geen kaarttoepassing gaf antwoord. In plaats daarvan gekopieerd: {text}",
    "The coordinates: {text}": "De coördinaten: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Pijltjestoetsen bewegen de kaart, plus en min zoomen, Enter neemt het adres in het midden.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, {length} breed, rond {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, rond {lat}, {lon}.",
    "{n}° north": "{n}° noord",
    "{n}° south": "{n}° zuid",
    "{n}° east": "{n}° oost",
    "{n}° west": "{n}° west",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} merkteken staat op de kaart.",
      other: "{n} merktekens staan op de kaart.",
    },
    "A marker stands at {places}.": "Er staat een merkteken bij {places}.",
    "This place has no position yet.": "Deze plek heeft nog geen positie.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} van {all} plekken heeft nog geen positie.",
      other: "{n} van {all} plekken hebben nog geen positie.",
    },
    "Marker {n}": "Merkteken {n}",
    "{n} of {all}": "{n} van {all}",
    "Enter opens": "Enter opent",
    "M moves": "M beweegt",
    "arrows move, with Shift by little": "pijltjes bewegen, met Shift een beetje",
    "Enter drops": "Enter zet neer",
    "Esc puts back": "Esc zet terug",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} in reliëf. Pijltjestoetsen draaien en kantelen het, plus en min gaan dichterbij en verder weg, N draait naar het noorden, 0 kijkt recht naar beneden, Escape gaat terug naar de vlakke kaart.",
    "Flat map": "Vlakke kaart",
    "Straight down": "Recht naar beneden",
    "North up": "Noorden boven",
    "Preparing the relief …": "Het reliëf wordt voorbereid …",
    "{n} m above the sea": "{n} m boven de zee",
    "{place}, {n} m above the sea": "{place}, {n} m boven de zee",
    "The relief did not come.": "Het reliëf is niet gekomen.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Wat het reliëf tekent is niet gekomen. Kijk de verbinding na en probeer het opnieuw.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Deze browser kan het terrein niet in reliëf tekenen. De vlakke kaart blijft.",
    "Something is wrong with this address": "Er klopt iets niet aan dit adres",
    "What is wrong?": "Wat klopt er niet?",
    Send: "Versturen",
    "Leave it": "Laat maar",
    "Thank you. Somebody will look at it.": "Dank u. Iemand kijkt ernaar.",
  },
};

export default words;
