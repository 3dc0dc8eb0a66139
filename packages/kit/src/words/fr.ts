import type { Words } from "./say.ts";

/** French. */
const words: Words = {
  lang: "fr",
  words: {
    Suggestions: "Suggestions",
    "{n} suggestion.|{n} suggestions.": { one: "{n} suggestion.", other: "{n} suggestions." },
    "No suggestions.": "Aucune suggestion.",
    "Its numbers: right arrow": "Ses numéros : flèche droite",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Rien trouvé. Vérifiez l'orthographe, ou saisissez l'adresse à la main.",
    "The address search does not work at the moment.": "La recherche d'adresses ne fonctionne pas en ce moment.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "La recherche d'adresses est injoignable. Vérifiez la connexion, ou saisissez l'adresse à la main.",
    "The address search takes too long. Try again, or type the address by hand.":
      "La recherche d'adresses met trop de temps. Réessayez, ou saisissez l'adresse à la main.",
    "The address search may not be used on this page.":
      "La recherche d'adresses ne peut pas être utilisée sur cette page.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Trop de recherches en ce moment. Attendez un instant, ou saisissez l'adresse à la main.",
    "The address search did not understand this. Type the address by hand.":
      "La recherche d'adresses n'a pas compris. Saisissez l'adresse à la main.",
    "This address is no longer there. Choose another.": "Cette adresse n'existe plus. Choisissez-en une autre.",
    "The address search does not work at the moment. Type the address by hand.":
      "La recherche d'adresses ne fonctionne pas en ce moment. Saisissez l'adresse à la main.",
    street: "rue",
    block: "îlot",
    postcode: "code postal",
    place: "lieu",
    district: "quartier",
    town: "ville",
    county: "département",
    region: "région",
    country: "pays",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} adresse convient. Est-ce celle-ci ?",
      other: "{n} adresses conviennent. Laquelle est-ce ?",
    },
    "Use what I typed": "Garder ma saisie",
    "Another address": "Une autre adresse",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Rien n'a été trouvé. Vérifiez l'orthographe, ou continuez avec votre saisie.",
    "Finding this device …": "Recherche de cet appareil …",
    "No address lies near this device. Type it, or press the map.":
      "Aucune adresse près de cet appareil. Saisissez-la, ou touchez la carte.",
    "This device is within {length} of here.": "Cet appareil est à moins de {length} d'ici.",
    "Is it this place?": "Est-ce ce lieu ?",
    "Is it this address?": "Est-ce cette adresse ?",
    "No address lies near this spot.": "Aucune adresse près de cet endroit.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Trouvée, mais seulement {where}. Montrez la maison sur la carte si vous le pouvez.",
    "at the house itself": "à la maison même",
    "between the houses beside it": "entre les maisons voisines",
    "somewhere on the street": "quelque part dans la rue",
    "in the middle of the area": "au milieu de la zone",
    "The picture stands here once the place is known.": "L'image apparaît ici dès que le lieu est connu.",
    "The picture did not come.": "L'image n'est pas arrivée.",
    "Map of {place}": "Carte de {place}",
    "Map of the place": "Carte du lieu",
    Choose: "Choisir",
    Unit: "Unité",
    "known once both ends are": "connue dès que les deux bouts le sont",
    "This browser cannot say where the device is.": "Ce navigateur ne peut pas dire où est l'appareil.",
    "Type the address, or put the marker where it is.": "Saisissez l'adresse, ou placez le repère au bon endroit.",
    "The position is only told to pages that came over a safe connection.":
      "La position n'est donnée qu'aux pages venues par une connexion sûre.",
    "Open the page by https, or type the address.": "Ouvrez la page en https, ou saisissez l'adresse.",
    "This page may not know where the device is.": "Cette page n'a pas le droit de savoir où est l'appareil.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Autorisez-le pour cette page dans les réglages du navigateur, ou saisissez l'adresse.",
    "The device does not know where it is.": "L'appareil ne sait pas où il est.",
    "Switch its position on, or type the address.": "Activez sa position, ou saisissez l'adresse.",
    "Finding the device took too long.": "Trouver l'appareil a pris trop de temps.",
    "Try again, best near a window, or type the address.":
      "Réessayez, de préférence près d'une fenêtre, ou saisissez l'adresse.",
    "The device is only known to be within {length} of here.":
      "On sait seulement que l'appareil est à moins de {length} d'ici.",
    "Put the marker on the right house.": "Placez le repère sur la bonne maison.",
    Streets: "Rues",
    Ground: "Terrain",
    Heights: "Altitudes",
    "Ground with streets": "Terrain avec rues",
    "Zoom in": "Rapprocher",
    "Zoom out": "Éloigner",
    "Kind of sheet": "Type de feuille",
    "Move the map under an aim": "Déplacer la carte sous une mire",
    "Show it in relief": "Montrer en relief",
    "Show where this device is": "Montrer où est cet appareil",
    "Parts of the map did not come. They are asked for again.":
      "Des parties de la carte ne sont pas arrivées. Elles sont redemandées.",
    "Take this address": "Prendre cette adresse",
    Markers: "Repères",
    Close: "Fermer",
    "Open in a map application": "Ouvrir dans une application de cartes",
    "The way there": "Le chemin",
    "Copy coordinates": "Copier les coordonnées",
    "Copied: {text}": "Copié : {text}",
    "No map application answered. Copied instead: {text}":
      "Aucune application de cartes n'a répondu. Copié à la place : {text}",
    "The coordinates: {text}": "Les coordonnées : {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Les flèches déplacent la carte, plus et moins changent l'échelle, Entrée prend l'adresse au milieu.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, {length} de large, autour de {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, autour de {lat}, {lon}.",
    "{n}° north": "{n}° nord",
    "{n}° south": "{n}° sud",
    "{n}° east": "{n}° est",
    "{n}° west": "{n}° ouest",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} repère se trouve sur la carte.",
      other: "{n} repères se trouvent sur la carte.",
    },
    "A marker stands at {places}.": "Un repère se trouve à {places}.",
    "This place has no position yet.": "Ce lieu n'a pas encore de position.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} lieu sur {all} n'a pas encore de position.",
      other: "{n} lieux sur {all} n'ont pas encore de position.",
    },
    "Marker {n}": "Repère {n}",
    "{n} of {all}": "{n} sur {all}",
    "Enter opens": "Entrée ouvre",
    "M moves": "M déplace",
    "arrows move, with Shift by little": "les flèches déplacent, avec Maj un peu",
    "Enter drops": "Entrée pose",
    "Esc puts back": "Échap remet",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} en relief. Les flèches le tournent et l'inclinent, plus et moins rapprochent et éloignent, N le tourne vers le nord, 0 regarde droit vers le bas, Échap revient à la carte plane.",
    "Flat map": "Carte plane",
    "Straight down": "Droit vers le bas",
    "North up": "Nord en haut",
    "Preparing the relief …": "Préparation du relief …",
    "{n} m above the sea": "{n} m au-dessus de la mer",
    "{place}, {n} m above the sea": "{place}, {n} m au-dessus de la mer",
    "The relief did not come.": "Le relief n'est pas arrivé.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Ce qui dessine le relief n'est pas arrivé. Vérifiez la connexion, puis réessayez.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Ce navigateur ne peut pas dessiner le terrain en relief. La carte plane reste.",
    "Something is wrong with this address": "Il y a une erreur dans cette adresse",
    "What is wrong?": "Qu’est-ce qui ne va pas ?",
    Send: "Envoyer",
    "Leave it": "Laisser",
    "Thank you. Somebody will look at it.": "Merci. Quelqu’un va regarder.",
  },
};

export default words;
