import type { Words } from "./say.ts";

/** Spanish. */
const words: Words = {
  lang: "es",
  words: {
    Suggestions: "Sugerencias",
    "{n} suggestion.|{n} suggestions.": { one: "{n} sugerencia.", other: "{n} sugerencias." },
    "No suggestions.": "Ninguna sugerencia.",
    "Its numbers: right arrow": "Sus números: flecha derecha",
    "Nothing found. Check the spelling, or type the address by hand.":
      "No se encontró nada. Revise la ortografía o escriba la dirección a mano.",
    "The address search does not work at the moment.": "La búsqueda de direcciones no funciona en este momento.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "No se puede llegar a la búsqueda de direcciones. Revise la conexión o escriba la dirección a mano.",
    "The address search takes too long. Try again, or type the address by hand.":
      "La búsqueda de direcciones tarda demasiado. Inténtelo de nuevo o escriba la dirección a mano.",
    "The address search may not be used on this page.": "La búsqueda de direcciones no se puede usar en esta página.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Hay demasiadas búsquedas ahora. Espere un momento o escriba la dirección a mano.",
    "The address search did not understand this. Type the address by hand.":
      "La búsqueda de direcciones no entendió esto. Escriba la dirección a mano.",
    "This address is no longer there. Choose another.": "Esta dirección ya no existe. Elija otra.",
    "The address search does not work at the moment. Type the address by hand.":
      "La búsqueda de direcciones no funciona en este momento. Escriba la dirección a mano.",
    street: "calle",
    block: "manzana",
    postcode: "código postal",
    place: "lugar",
    district: "barrio",
    town: "población",
    county: "comarca",
    region: "región",
    country: "país",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} dirección encaja. ¿Es esta?",
      other: "{n} direcciones encajan. ¿Cuál es?",
    },
    "Use what I typed": "Usar lo que escribí",
    "Another address": "Otra dirección",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "No se encontró nada. Revise la ortografía o siga con lo que escribió.",
    "Finding this device …": "Buscando este dispositivo …",
    "No address lies near this device. Type it, or press the map.":
      "No hay ninguna dirección cerca de este dispositivo. Escríbala o toque el mapa.",
    "This device is within {length} of here.": "Este dispositivo está a menos de {length} de aquí.",
    "Is it this place?": "¿Es este lugar?",
    "Is it this address?": "¿Es esta dirección?",
    "No address lies near this spot.": "No hay ninguna dirección cerca de este punto.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Encontrada, pero solo {where}. Señale la casa en el mapa si puede.",
    "at the house itself": "en la casa misma",
    "between the houses beside it": "entre las casas de al lado",
    "somewhere on the street": "en algún punto de la calle",
    "in the middle of the area": "en el centro de la zona",
    "The picture stands here once the place is known.": "La imagen estará aquí cuando se conozca el lugar.",
    "The picture did not come.": "La imagen no llegó.",
    "Map of {place}": "Mapa de {place}",
    "Map of the place": "Mapa del lugar",
    Choose: "Elegir",
    Unit: "Unidad",
    "known once both ends are": "se sabe cuando se conocen ambos extremos",
    "This browser cannot say where the device is.": "Este navegador no puede decir dónde está el dispositivo.",
    "Type the address, or put the marker where it is.": "Escriba la dirección o ponga la marca donde está.",
    "The position is only told to pages that came over a safe connection.":
      "La posición solo se da a páginas llegadas por una conexión segura.",
    "Open the page by https, or type the address.": "Abra la página por https o escriba la dirección.",
    "This page may not know where the device is.": "Esta página no puede saber dónde está el dispositivo.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Permítalo para esta página en los ajustes del navegador o escriba la dirección.",
    "The device does not know where it is.": "El dispositivo no sabe dónde está.",
    "Switch its position on, or type the address.": "Active su posición o escriba la dirección.",
    "Finding the device took too long.": "Encontrar el dispositivo tardó demasiado.",
    "Try again, best near a window, or type the address.":
      "Inténtelo de nuevo, mejor cerca de una ventana, o escriba la dirección.",
    "The device is only known to be within {length} of here.":
      "Del dispositivo solo se sabe que está a menos de {length} de aquí.",
    "Put the marker on the right house.": "Ponga la marca en la casa correcta.",
    Streets: "Calles",
    Ground: "Terreno",
    Heights: "Alturas",
    "Ground with streets": "Terreno con calles",
    "Zoom in": "Acercar",
    "Zoom out": "Alejar",
    "Kind of sheet": "Tipo de hoja",
    "Move the map under an aim": "Mover el mapa bajo una mira",
    "Show it in relief": "Mostrar en relieve",
    "Show where this device is": "Mostrar dónde está este dispositivo",
    "Parts of the map did not come. They are asked for again.": "Faltan partes del mapa. Se vuelven a pedir.",
    "Take this address": "Tomar esta dirección",
    Markers: "Marcas",
    Close: "Cerrar",
    "Open in a map application": "Abrir en una aplicación de mapas",
    "The way there": "El camino hasta allí",
    "Copy coordinates": "Copiar coordenadas",
    "Copied: {text}": "Copiado: {text}",
    "No map application answered. Copied instead: {text}":
      "Ninguna aplicación de mapas respondió. Copiado en su lugar: {text}",
    "The coordinates: {text}": "Las coordenadas: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Las flechas lo mueven, más y menos acercan y alejan, Intro toma la dirección del centro.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, {length} de ancho, alrededor de {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, alrededor de {lat}, {lon}.",
    "{n}° north": "{n}° norte",
    "{n}° south": "{n}° sur",
    "{n}° east": "{n}° este",
    "{n}° west": "{n}° oeste",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} marca está en el mapa.",
      other: "{n} marcas están en el mapa.",
    },
    "A marker stands at {places}.": "Hay una marca en {places}.",
    "This place has no position yet.": "Este lugar aún no tiene posición.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} de {all} lugares aún no tiene posición.",
      other: "{n} de {all} lugares aún no tienen posición.",
    },
    "Marker {n}": "Marca {n}",
    "{n} of {all}": "{n} de {all}",
    "Enter opens": "Intro abre",
    "M moves": "M mueve",
    "arrows move, with Shift by little": "las flechas mueven, con Mayús poco",
    "Enter drops": "Intro suelta",
    "Esc puts back": "Esc devuelve",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} en relieve. Las flechas lo giran y lo inclinan, más y menos acercan y alejan, N lo gira al norte, 0 mira recto hacia abajo, Esc vuelve al mapa plano.",
    "Flat map": "Mapa plano",
    "Straight down": "Recto hacia abajo",
    "North up": "Norte arriba",
    "Preparing the relief …": "Preparando el relieve …",
    "{n} m above the sea": "{n} m sobre el mar",
    "{place}, {n} m above the sea": "{place}, {n} m sobre el mar",
    "The relief did not come.": "El relieve no llegó.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Lo que dibuja el relieve no llegó. Revise la conexión e inténtelo de nuevo.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Este navegador no puede dibujar el terreno en relieve. Queda el mapa plano.",
    "Something is wrong with this address": "Algo está mal en esta dirección",
    "What is wrong?": "¿Qué está mal?",
    Send: "Enviar",
    "Leave it": "Dejarlo",
    "Thank you. Somebody will look at it.": "Gracias. Alguien lo mirará.",
  },
};

export default words;
