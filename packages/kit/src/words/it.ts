import type { Words } from "./say.ts";

/** Italian. */
const words: Words = {
  lang: "it",
  words: {
    Suggestions: "Suggerimenti",
    "{n} suggestion.|{n} suggestions.": { one: "{n} suggerimento.", other: "{n} suggerimenti." },
    "No suggestions.": "Nessun suggerimento.",
    "Its numbers: right arrow": "I suoi numeri: freccia destra",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Non si è trovato nulla. Controlli l'ortografia o scriva l'indirizzo a mano.",
    "The address search does not work at the moment.": "La ricerca di indirizzi al momento non funziona.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "La ricerca di indirizzi non è raggiungibile. Controlli la connessione o scriva l'indirizzo a mano.",
    "The address search takes too long. Try again, or type the address by hand.":
      "La ricerca di indirizzi impiega troppo tempo. Riprovi o scriva l'indirizzo a mano.",
    "The address search may not be used on this page.": "La ricerca di indirizzi non si può usare in questa pagina.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Troppe ricerche in questo momento. Aspetti un attimo o scriva l'indirizzo a mano.",
    "The address search did not understand this. Type the address by hand.":
      "La ricerca di indirizzi non ha capito. Scriva l'indirizzo a mano.",
    "This address is no longer there. Choose another.": "Questo indirizzo non c'è più. Ne scelga un altro.",
    "The address search does not work at the moment. Type the address by hand.":
      "La ricerca di indirizzi al momento non funziona. Scriva l'indirizzo a mano.",
    street: "via",
    block: "isolato",
    postcode: "codice postale",
    place: "luogo",
    district: "quartiere",
    town: "località",
    county: "provincia",
    region: "regione",
    country: "paese",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} indirizzo corrisponde. È questo?",
      other: "{n} indirizzi corrispondono. Qual è?",
    },
    "Use what I typed": "Usa ciò che ho scritto",
    "Another address": "Un altro indirizzo",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Non si è trovato nulla. Controlli l'ortografia o prosegua con ciò che ha scritto.",
    "Finding this device …": "Ricerca di questo dispositivo …",
    "No address lies near this device. Type it, or press the map.":
      "Nessun indirizzo vicino a questo dispositivo. Lo scriva o tocchi la mappa.",
    "This device is within {length} of here.": "Questo dispositivo è entro {length} da qui.",
    "Is it this place?": "È questo luogo?",
    "Is it this address?": "È questo indirizzo?",
    "No address lies near this spot.": "Nessun indirizzo vicino a questo punto.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Trovato, ma solo {where}. Se può, indichi la casa sulla mappa.",
    "at the house itself": "alla casa stessa",
    "between the houses beside it": "tra le case accanto",
    "somewhere on the street": "da qualche parte nella via",
    "in the middle of the area": "al centro dell'area",
    "The picture stands here once the place is known.": "L'immagine sarà qui quando il luogo è noto.",
    "The picture did not come.": "L'immagine non è arrivata.",
    "Map of {place}": "Mappa di {place}",
    "Map of the place": "Mappa del luogo",
    Choose: "Scegliere",
    Unit: "Unità",
    "known once both ends are": "nota quando lo sono entrambi i capi",
    "This browser cannot say where the device is.": "Questo browser non può dire dov'è il dispositivo.",
    "Type the address, or put the marker where it is.": "Scriva l'indirizzo o metta il segno dov'è.",
    "The position is only told to pages that came over a safe connection.":
      "La posizione si dice solo a pagine arrivate con una connessione sicura.",
    "Open the page by https, or type the address.": "Apra la pagina con https o scriva l'indirizzo.",
    "This page may not know where the device is.": "Questa pagina non può sapere dov'è il dispositivo.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Lo permetta per questa pagina nelle impostazioni del browser o scriva l'indirizzo.",
    "The device does not know where it is.": "Il dispositivo non sa dov'è.",
    "Switch its position on, or type the address.": "Attivi la posizione o scriva l'indirizzo.",
    "Finding the device took too long.": "Trovare il dispositivo ha richiesto troppo tempo.",
    "Try again, best near a window, or type the address.":
      "Riprovi, meglio vicino a una finestra, o scriva l'indirizzo.",
    "The device is only known to be within {length} of here.":
      "Del dispositivo si sa solo che è entro {length} da qui.",
    "Put the marker on the right house.": "Metta il segno sulla casa giusta.",
    Streets: "Vie",
    Ground: "Terreno",
    Heights: "Altezze",
    "Ground with streets": "Terreno con vie",
    "Zoom in": "Avvicina",
    "Zoom out": "Allontana",
    "Kind of sheet": "Tipo di foglio",
    "Move the map under an aim": "Muovere la mappa sotto un mirino",
    "Show it in relief": "Mostra in rilievo",
    "Show where this device is": "Mostra dov'è questo dispositivo",
    "Parts of the map did not come. They are asked for again.":
      "Parti della mappa non sono arrivate. Vengono richieste di nuovo.",
    "Take this address": "Prendi questo indirizzo",
    Markers: "Segni",
    Close: "Chiudi",
    "Open in a map application": "Apri in un'applicazione di mappe",
    "The way there": "La strada per arrivarci",
    "Copy coordinates": "Copia le coordinate",
    "Copied: {text}": "Copiato: {text}",
    "No map application answered. Copied instead: {text}":
      "Nessuna applicazione di mappe ha risposto. Copiato invece: {text}",
    "The coordinates: {text}": "Le coordinate: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Le frecce la muovono, più e meno cambiano la scala, Invio prende l'indirizzo al centro.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, larga {length}, intorno a {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, intorno a {lat}, {lon}.",
    "{n}° north": "{n}° nord",
    "{n}° south": "{n}° sud",
    "{n}° east": "{n}° est",
    "{n}° west": "{n}° ovest",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} segno è sulla mappa.",
      other: "{n} segni sono sulla mappa.",
    },
    "A marker stands at {places}.": "Un segno è a {places}.",
    "This place has no position yet.": "Questo luogo non ha ancora una posizione.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} luogo su {all} non ha ancora una posizione.",
      other: "{n} luoghi su {all} non hanno ancora una posizione.",
    },
    "Marker {n}": "Segno {n}",
    "{n} of {all}": "{n} di {all}",
    "Enter opens": "Invio apre",
    "M moves": "M muove",
    "arrows move, with Shift by little": "le frecce muovono, con Maiusc di poco",
    "Enter drops": "Invio posa",
    "Esc puts back": "Esc rimette",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} in rilievo. Le frecce lo girano e lo inclinano, più e meno avvicinano e allontanano, N lo gira a nord, 0 guarda dritto in giù, Esc torna alla mappa piana.",
    "Flat map": "Mappa piana",
    "Straight down": "Dritto in giù",
    "North up": "Nord in alto",
    "Preparing the relief …": "Preparazione del rilievo …",
    "{n} m above the sea": "{n} m sul mare",
    "{place}, {n} m above the sea": "{place}, {n} m sul mare",
    "The relief did not come.": "Il rilievo non è arrivato.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Ciò che disegna il rilievo non è arrivato. Controlli la connessione e riprovi.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Questo browser non può disegnare il terreno in rilievo. Resta la mappa piana.",
    "Something is wrong with this address": "C’è qualcosa di sbagliato in questo indirizzo",
    "What is wrong?": "Che cosa è sbagliato?",
    Send: "Invia",
    "Leave it": "Lascia stare",
    "Thank you. Somebody will look at it.": "Grazie. Qualcuno lo guarderà.",
  },
};

export default words;
