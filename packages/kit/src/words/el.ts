import type { Words } from "./say.ts";

/** Greek. */
const words: Words = {
  lang: "el",
  words: {
    Suggestions: "Προτάσεις",
    "{n} suggestion.|{n} suggestions.": { one: "{n} πρόταση.", other: "{n} προτάσεις." },
    "No suggestions.": "Καμία πρόταση.",
    "Its numbers: right arrow": "Οι αριθμοί της: δεξί βέλος",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Δεν βρέθηκε τίποτα. Ελέγξτε την ορθογραφία ή γράψτε τη διεύθυνση με το χέρι.",
    "The address search does not work at the moment.": "Η αναζήτηση διευθύνσεων δεν λειτουργεί αυτή τη στιγμή.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "Η αναζήτηση διευθύνσεων δεν είναι προσιτή. Ελέγξτε τη σύνδεση ή γράψτε τη διεύθυνση με το χέρι.",
    "The address search takes too long. Try again, or type the address by hand.":
      "Η αναζήτηση διευθύνσεων αργεί πολύ. Δοκιμάστε ξανά ή γράψτε τη διεύθυνση με το χέρι.",
    "The address search may not be used on this page.": "Η αναζήτηση διευθύνσεων δεν επιτρέπεται σε αυτή τη σελίδα.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Πάρα πολλές αναζητήσεις αυτή τη στιγμή. Περιμένετε λίγο ή γράψτε τη διεύθυνση με το χέρι.",
    "The address search did not understand this. Type the address by hand.":
      "Η αναζήτηση διευθύνσεων δεν το κατάλαβε. Γράψτε τη διεύθυνση με το χέρι.",
    "This address is no longer there. Choose another.": "Αυτή η διεύθυνση δεν υπάρχει πια. Διαλέξτε άλλη.",
    "The address search does not work at the moment. Type the address by hand.":
      "Η αναζήτηση διευθύνσεων δεν λειτουργεί αυτή τη στιγμή. Γράψτε τη διεύθυνση με το χέρι.",
    street: "οδός",
    block: "τετράγωνο",
    postcode: "ταχυδρομικός κώδικας",
    place: "τοποθεσία",
    district: "συνοικία",
    town: "πόλη",
    county: "νομός",
    region: "περιφέρεια",
    country: "χώρα",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} διεύθυνση ταιριάζει. Είναι αυτή;",
      other: "{n} διευθύνσεις ταιριάζουν. Ποια είναι;",
    },
    "Use what I typed": "Να μείνει ό,τι έγραψα",
    "Another address": "Άλλη διεύθυνση",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Δεν βρέθηκε τίποτα. Ελέγξτε την ορθογραφία ή συνεχίστε με ό,τι γράψατε.",
    "Finding this device …": "Αναζήτηση αυτής της συσκευής …",
    "No address lies near this device. Type it, or press the map.":
      "Δεν υπάρχει διεύθυνση κοντά σε αυτή τη συσκευή. Γράψτε την ή δείξτε την στον χάρτη.",
    "This device is within {length} of here.": "Αυτή η συσκευή απέχει από εδώ το πολύ {length}.",
    "Is it this place?": "Είναι αυτή η τοποθεσία;",
    "Is it this address?": "Είναι αυτή η διεύθυνση;",
    "No address lies near this spot.": "Δεν υπάρχει διεύθυνση κοντά σε αυτό το σημείο.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Βρέθηκε, αλλά μόνο {where}. Δείξτε το σπίτι στον χάρτη, αν μπορείτε.",
    "at the house itself": "στο ίδιο το σπίτι",
    "between the houses beside it": "ανάμεσα στα διπλανά σπίτια",
    "somewhere on the street": "κάπου στον δρόμο",
    "in the middle of the area": "στη μέση της περιοχής",
    "The picture stands here once the place is known.": "Η εικόνα θα είναι εδώ μόλις γίνει γνωστή η θέση.",
    "The picture did not come.": "Η εικόνα δεν ήρθε.",
    "Map of {place}": "Χάρτης: {place}",
    "Map of the place": "Χάρτης της τοποθεσίας",
    Choose: "Διαλέξτε",
    Unit: "Μονάδα",
    "known once both ends are": "γνωστή μόλις γίνουν γνωστά και τα δύο άκρα",
    "This browser cannot say where the device is.":
      "Αυτό το πρόγραμμα περιήγησης δεν μπορεί να πει πού είναι η συσκευή.",
    "Type the address, or put the marker where it is.": "Γράψτε τη διεύθυνση ή βάλτε το σημάδι στη θέση της.",
    "The position is only told to pages that came over a safe connection.":
      "Η θέση δίνεται μόνο σε σελίδες που ήρθαν με ασφαλή σύνδεση.",
    "Open the page by https, or type the address.": "Ανοίξτε τη σελίδα με https ή γράψτε τη διεύθυνση.",
    "This page may not know where the device is.": "Αυτή η σελίδα δεν επιτρέπεται να ξέρει πού είναι η συσκευή.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Επιτρέψτε το για αυτή τη σελίδα στις ρυθμίσεις ή γράψτε τη διεύθυνση.",
    "The device does not know where it is.": "Η συσκευή δεν ξέρει πού είναι.",
    "Switch its position on, or type the address.": "Ανοίξτε τη θέση της ή γράψτε τη διεύθυνση.",
    "Finding the device took too long.": "Η εύρεση της συσκευής κράτησε πολύ.",
    "Try again, best near a window, or type the address.":
      "Δοκιμάστε ξανά, καλύτερα κοντά σε παράθυρο, ή γράψτε τη διεύθυνση.",
    "The device is only known to be within {length} of here.":
      "Για τη συσκευή είναι γνωστό μόνο ότι απέχει από εδώ το πολύ {length}.",
    "Put the marker on the right house.": "Βάλτε το σημάδι στο σωστό σπίτι.",
    Streets: "Δρόμοι",
    Ground: "Έδαφος",
    Heights: "Υψόμετρα",
    "Ground with streets": "Έδαφος με δρόμους",
    "Zoom in": "Πιο κοντά",
    "Zoom out": "Πιο μακριά",
    "Kind of sheet": "Είδος φύλλου",
    "Move the map under an aim": "Κίνηση του χάρτη κάτω από στόχο",
    "Show it in relief": "Εμφάνιση ως ανάγλυφο",
    "Show where this device is": "Δείξε πού είναι αυτή η συσκευή",
    "Parts of the map did not come. They are asked for again.": "Μέρη του χάρτη δεν ήρθαν. Ζητούνται ξανά.",
    "Take this address": "Πάρε αυτή τη διεύθυνση",
    Markers: "Σημάδια",
    Close: "Κλείσιμο",
    "Open in a map application": "Άνοιγμα σε εφαρμογή χαρτών",
    "The way there": "Ο δρόμος προς τα εκεί",
    "Copy coordinates": "Αντιγραφή συντεταγμένων",
    "Copied: {text}": "Αντιγράφηκε: {text}",
    "No map application answered. Copied instead: {text}":
      "Καμία εφαρμογή χαρτών δεν απάντησε. Αντί γι' αυτό αντιγράφηκε: {text}",
    "The coordinates: {text}": "Οι συντεταγμένες: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. Τα βέλη τον κινούν, συν και πλην αλλάζουν την κλίμακα, Enter παίρνει τη διεύθυνση στη μέση.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, πλάτος {length}, γύρω από {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, γύρω από {lat}, {lon}.",
    "{n}° north": "{n}° βόρεια",
    "{n}° south": "{n}° νότια",
    "{n}° east": "{n}° ανατολικά",
    "{n}° west": "{n}° δυτικά",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} σημάδι βρίσκεται στον χάρτη.",
      other: "{n} σημάδια βρίσκονται στον χάρτη.",
    },
    "A marker stands at {places}.": "Ένα σημάδι βρίσκεται στη θέση {places}.",
    "This place has no position yet.": "Αυτή η τοποθεσία δεν έχει ακόμη θέση.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} από {all} τοποθεσίες δεν έχει ακόμη θέση.",
      other: "{n} από {all} τοποθεσίες δεν έχουν ακόμη θέση.",
    },
    "Marker {n}": "Σημάδι {n}",
    "{n} of {all}": "{n} από {all}",
    "Enter opens": "Enter ανοίγει",
    "M moves": "M κινεί",
    "arrows move, with Shift by little": "τα βέλη κινούν, με Shift λίγο",
    "Enter drops": "Enter αφήνει",
    "Esc puts back": "Esc επαναφέρει",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} ως ανάγλυφο. Τα βέλη το στρέφουν και το γέρνουν, συν και πλην πλησιάζουν και απομακρύνουν, N το στρέφει προς βορρά, 0 κοιτάζει ίσια κάτω, Escape γυρίζει στον επίπεδο χάρτη.",
    "Flat map": "Επίπεδος χάρτης",
    "Straight down": "Ίσια κάτω",
    "North up": "Βορράς πάνω",
    "Preparing the relief …": "Το ανάγλυφο ετοιμάζεται …",
    "{n} m above the sea": "{n} μ. πάνω από τη θάλασσα",
    "{place}, {n} m above the sea": "{place}, {n} μ. πάνω από τη θάλασσα",
    "The relief did not come.": "Το ανάγλυφο δεν ήρθε.",
    "What draws the relief did not come. Check the connection, then try again.":
      "Ό,τι σχεδιάζει το ανάγλυφο δεν ήρθε. Ελέγξτε τη σύνδεση και δοκιμάστε ξανά.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Αυτό το πρόγραμμα περιήγησης δεν μπορεί να σχεδιάσει το έδαφος ως ανάγλυφο. Ο επίπεδος χάρτης μένει.",
    "Something is wrong with this address": "Κάτι δεν είναι σωστό σε αυτή τη διεύθυνση",
    "What is wrong?": "Τι δεν είναι σωστό;",
    Send: "Αποστολή",
    "Leave it": "Άφησέ το",
    "Thank you. Somebody will look at it.": "Ευχαριστούμε. Κάποιος θα το κοιτάξει.",
  },
};

export default words;
