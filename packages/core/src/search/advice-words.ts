/** Advice on a lookup, by its English sentence; and the parts that are named in it. */
export type AdviceWords = Readonly<
  Record<
    | "Enter at least one word."
    | "Read as a position: {at}."
    | "There is no town “{town}” in the data. “{name}” is in {towns}."
    | "There is nothing like it in “{town}”. “{name}” is in {towns}."
    | "Something differs from what was entered: see the differences."
    | "These words are known, but not together: check the town or postcode."
    | "Unknown: {words}. Check the spelling."
    | "There is nothing here, but there is at {at}: were latitude and longitude swapped?"
    | "There is no address or area here. Try a larger radius."
    | "There is no data for {missing}, only for {existing}."
    | "There is no postcode that starts like this."
    | "Several match equally well: enter more of the address."
    | "Several streets match equally well: enter the full street name."
    | "Several match equally well: choose one."
    | "Several match equally well: add the {part}."
    | "Several match equally well: add the {part} or the {other}."
    | "town"
    | "postcode"
    | "county"
    | "region"
    | "country",
    string
  >
>;

/** By language, BCP 47. */
export const ADVICE_WORDS: Readonly<Record<string, AdviceWords>> = {
  ar: {
    "Enter at least one word.": "أدخل كلمة واحدة على الأقل.",
    "Read as a position: {at}.": "قُرئ على أنه موقع: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "لا توجد بلدة باسم «{town}» في البيانات. «{name}» في {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "لا يوجد ما يشبه ذلك في «{town}». «{name}» في {towns}.",
    "Something differs from what was entered: see the differences.": "هناك ما يختلف عمّا أُدخل: انظر الفروق.",
    "These words are known, but not together: check the town or postcode.":
      "هذه الكلمات معروفة، لكن ليس معًا: تحقق من البلدة أو الرمز البريدي.",
    "Unknown: {words}. Check the spelling.": "غير معروف: {words}. تحقق من الإملاء.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "لا يوجد شيء هنا، لكن يوجد عند {at}: هل تبدّل خط العرض وخط الطول؟",
    "There is no address or area here. Try a larger radius.": "لا يوجد عنوان أو منطقة هنا. جرّب نصف قطر أكبر.",
    "There is no data for {missing}, only for {existing}.": "لا توجد بيانات عن {missing}، بل عن {existing} فقط.",
    "There is no postcode that starts like this.": "لا يوجد رمز بريدي يبدأ هكذا.",
    "Several match equally well: enter more of the address.": "عدة نتائج متطابقة بالقدر نفسه: أدخل المزيد من العنوان.",
    "Several streets match equally well: enter the full street name.":
      "عدة شوارع متطابقة بالقدر نفسه: أدخل اسم الشارع كاملًا.",
    "Several match equally well: choose one.": "عدة نتائج متطابقة بالقدر نفسه: اختر واحدة.",
    "Several match equally well: add the {part}.": "عدة نتائج متطابقة بالقدر نفسه: أضف {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "عدة نتائج متطابقة بالقدر نفسه: أضف {part} أو {other}.",
    town: "البلدة",
    postcode: "الرمز البريدي",
    county: "المقاطعة",
    region: "المنطقة",
    country: "البلد",
  },
  de: {
    "Enter at least one word.": "Geben Sie mindestens ein Wort ein.",
    "Read as a position: {at}.": "Als Position gelesen: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "In den Daten gibt es keinen Ort „{town}“. „{name}“ liegt in {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "In „{town}“ gibt es nichts dergleichen. „{name}“ liegt in {towns}.",
    "Something differs from what was entered: see the differences.":
      "Etwas weicht von der Eingabe ab: siehe die Unterschiede.",
    "These words are known, but not together: check the town or postcode.":
      "Diese Wörter sind bekannt, aber nicht zusammen: Prüfen Sie Ort oder Postleitzahl.",
    "Unknown: {words}. Check the spelling.": "Unbekannt: {words}. Prüfen Sie die Schreibweise.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Hier ist nichts, wohl aber bei {at}: Wurden Breite und Länge vertauscht?",
    "There is no address or area here. Try a larger radius.":
      "Hier gibt es keine Adresse und kein Gebiet. Versuchen Sie einen größeren Umkreis.",
    "There is no data for {missing}, only for {existing}.": "Für {missing} gibt es keine Daten, nur für {existing}.",
    "There is no postcode that starts like this.": "Keine Postleitzahl beginnt so.",
    "Several match equally well: enter more of the address.":
      "Mehrere passen gleich gut: Geben Sie mehr von der Adresse ein.",
    "Several streets match equally well: enter the full street name.":
      "Mehrere Straßen passen gleich gut: Geben Sie den ganzen Straßennamen ein.",
    "Several match equally well: choose one.": "Mehrere passen gleich gut: Wählen Sie eine aus.",
    "Several match equally well: add the {part}.": "Mehrere passen gleich gut. Bitte ergänzen: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Mehrere passen gleich gut. Bitte ergänzen: {part} oder {other}.",
    town: "Ort",
    postcode: "Postleitzahl",
    county: "Kreis",
    region: "Region",
    country: "Land",
  },
  el: {
    "Enter at least one word.": "Πληκτρολογήστε τουλάχιστον μία λέξη.",
    "Read as a position: {at}.": "Διαβάστηκε ως θέση: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "Στα δεδομένα δεν υπάρχει πόλη «{town}». Το «{name}» βρίσκεται: {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "Δεν υπάρχει κάτι τέτοιο εδώ: «{town}». Το «{name}» βρίσκεται: {towns}.",
    "Something differs from what was entered: see the differences.":
      "Κάτι διαφέρει από αυτό που γράψατε: δείτε τις διαφορές.",
    "These words are known, but not together: check the town or postcode.":
      "Αυτές οι λέξεις είναι γνωστές, αλλά όχι μαζί: ελέγξτε την πόλη ή τον ταχυδρομικό κώδικα.",
    "Unknown: {words}. Check the spelling.": "Άγνωστο: {words}. Ελέγξτε την ορθογραφία.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Εδώ δεν υπάρχει τίποτα, αλλά υπάρχει στο {at}: μήπως εναλλάχθηκαν πλάτος και μήκος;",
    "There is no address or area here. Try a larger radius.":
      "Εδώ δεν υπάρχει διεύθυνση ή περιοχή. Δοκιμάστε μεγαλύτερη ακτίνα.",
    "There is no data for {missing}, only for {existing}.": "Δεν υπάρχουν δεδομένα για {missing}, μόνο για {existing}.",
    "There is no postcode that starts like this.": "Κανένας ταχυδρομικός κώδικας δεν αρχίζει έτσι.",
    "Several match equally well: enter more of the address.":
      "Πολλές ταιριάζουν το ίδιο καλά: γράψτε περισσότερα από τη διεύθυνση.",
    "Several streets match equally well: enter the full street name.":
      "Πολλοί δρόμοι ταιριάζουν το ίδιο καλά: γράψτε ολόκληρο το όνομα του δρόμου.",
    "Several match equally well: choose one.": "Πολλές ταιριάζουν το ίδιο καλά: επιλέξτε μία.",
    "Several match equally well: add the {part}.": "Πολλές ταιριάζουν το ίδιο καλά. Προσθέστε: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Πολλές ταιριάζουν το ίδιο καλά. Προσθέστε: {part} ή {other}.",
    town: "πόλη",
    postcode: "ταχυδρομικός κώδικας",
    county: "νομός",
    region: "περιφέρεια",
    country: "χώρα",
  },
  es: {
    "Enter at least one word.": "Escriba al menos una palabra.",
    "Read as a position: {at}.": "Leído como posición: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "En los datos no hay ninguna localidad «{town}». «{name}» está en {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "No hay nada parecido en «{town}». «{name}» está en {towns}.",
    "Something differs from what was entered: see the differences.":
      "Algo difiere de lo que se escribió: vea las diferencias.",
    "These words are known, but not together: check the town or postcode.":
      "Estas palabras se conocen, pero no juntas: compruebe la localidad o el código postal.",
    "Unknown: {words}. Check the spelling.": "Desconocido: {words}. Compruebe la ortografía.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Aquí no hay nada, pero sí en {at}: ¿se intercambiaron latitud y longitud?",
    "There is no address or area here. Try a larger radius.":
      "Aquí no hay ninguna dirección ni zona. Pruebe con un radio mayor.",
    "There is no data for {missing}, only for {existing}.": "No hay datos de {missing}, solo de {existing}.",
    "There is no postcode that starts like this.": "Ningún código postal empieza así.",
    "Several match equally well: enter more of the address.":
      "Varias coinciden por igual: escriba más de la dirección.",
    "Several streets match equally well: enter the full street name.":
      "Varias calles coinciden por igual: escriba el nombre completo de la calle.",
    "Several match equally well: choose one.": "Varias coinciden por igual: elija una.",
    "Several match equally well: add the {part}.": "Varias coinciden por igual. Añada: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Varias coinciden por igual. Añada: {part} o {other}.",
    town: "localidad",
    postcode: "código postal",
    county: "provincia",
    region: "región",
    country: "país",
  },
  fr: {
    "Enter at least one word.": "Saisissez au moins un mot.",
    "Read as a position: {at}.": "Lu comme une position : {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "Il n'y a pas de localité « {town} » dans les données. « {name} » se trouve à {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "Il n'y a rien de tel à « {town} ». « {name} » se trouve à {towns}.",
    "Something differs from what was entered: see the differences.":
      "Quelque chose diffère de ce qui a été saisi : voyez les différences.",
    "These words are known, but not together: check the town or postcode.":
      "Ces mots sont connus, mais pas ensemble : vérifiez la localité ou le code postal.",
    "Unknown: {words}. Check the spelling.": "Inconnu : {words}. Vérifiez l'orthographe.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Il n'y a rien ici, mais bien à {at} : latitude et longitude ont-elles été inversées ?",
    "There is no address or area here. Try a larger radius.":
      "Il n'y a ici ni adresse ni zone. Essayez un rayon plus grand.",
    "There is no data for {missing}, only for {existing}.":
      "Il n'y a pas de données pour {missing}, seulement pour {existing}.",
    "There is no postcode that starts like this.": "Aucun code postal ne commence ainsi.",
    "Several match equally well: enter more of the address.":
      "Plusieurs correspondent aussi bien : saisissez davantage de l'adresse.",
    "Several streets match equally well: enter the full street name.":
      "Plusieurs rues correspondent aussi bien : saisissez le nom complet de la rue.",
    "Several match equally well: choose one.": "Plusieurs correspondent aussi bien : choisissez-en une.",
    "Several match equally well: add the {part}.": "Plusieurs correspondent aussi bien. À ajouter : {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Plusieurs correspondent aussi bien. À ajouter : {part} ou {other}.",
    town: "localité",
    postcode: "code postal",
    county: "département",
    region: "région",
    country: "pays",
  },
  it: {
    "Enter at least one word.": "Inserire almeno una parola.",
    "Read as a position: {at}.": "Letto come posizione: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "Nei dati non c'è nessuna località «{town}». «{name}» si trova a {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "Non c'è nulla di simile a «{town}». «{name}» si trova a {towns}.",
    "Something differs from what was entered: see the differences.":
      "Qualcosa differisce da quanto inserito: vedere le differenze.",
    "These words are known, but not together: check the town or postcode.":
      "Queste parole sono note, ma non insieme: controllare la località o il codice postale.",
    "Unknown: {words}. Check the spelling.": "Sconosciuto: {words}. Controllare l'ortografia.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Qui non c'è nulla, ma c'è a {at}: latitudine e longitudine sono state scambiate?",
    "There is no address or area here. Try a larger radius.":
      "Qui non c'è nessun indirizzo né area. Provare con un raggio più grande.",
    "There is no data for {missing}, only for {existing}.": "Non ci sono dati per {missing}, solo per {existing}.",
    "There is no postcode that starts like this.": "Nessun codice postale comincia così.",
    "Several match equally well: enter more of the address.":
      "Più risultati corrispondono allo stesso modo: inserire altro dell'indirizzo.",
    "Several streets match equally well: enter the full street name.":
      "Più vie corrispondono allo stesso modo: inserire il nome completo della via.",
    "Several match equally well: choose one.": "Più risultati corrispondono allo stesso modo: sceglierne uno.",
    "Several match equally well: add the {part}.": "Più risultati corrispondono allo stesso modo. Aggiungere: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Più risultati corrispondono allo stesso modo. Aggiungere: {part} o {other}.",
    town: "località",
    postcode: "codice postale",
    county: "provincia",
    region: "regione",
    country: "paese",
  },
  nl: {
    "Enter at least one word.": "Voer ten minste één woord in.",
    "Read as a position: {at}.": "Gelezen als positie: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "In de gegevens staat geen plaats “{town}”. “{name}” ligt in {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "In “{town}” is niets dergelijks. “{name}” ligt in {towns}.",
    "Something differs from what was entered: see the differences.":
      "Iets wijkt af van wat is ingevoerd: zie de verschillen.",
    "These words are known, but not together: check the town or postcode.":
      "Deze woorden zijn bekend, maar niet samen: controleer de plaats of postcode.",
    "Unknown: {words}. Check the spelling.": "Onbekend: {words}. Controleer de spelling.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Hier is niets, maar wel bij {at}: zijn breedte en lengte verwisseld?",
    "There is no address or area here. Try a larger radius.":
      "Hier is geen adres of gebied. Probeer een grotere straal.",
    "There is no data for {missing}, only for {existing}.":
      "Er zijn geen gegevens voor {missing}, alleen voor {existing}.",
    "There is no postcode that starts like this.": "Geen postcode begint zo.",
    "Several match equally well: enter more of the address.": "Meerdere passen even goed: voer meer van het adres in.",
    "Several streets match equally well: enter the full street name.":
      "Meerdere straten passen even goed: voer de volledige straatnaam in.",
    "Several match equally well: choose one.": "Meerdere passen even goed: kies er een.",
    "Several match equally well: add the {part}.": "Meerdere passen even goed. Vul aan: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Meerdere passen even goed. Vul aan: {part} of {other}.",
    town: "plaats",
    postcode: "postcode",
    county: "provincie",
    region: "regio",
    country: "land",
  },
  pl: {
    "Enter at least one word.": "Wpisz co najmniej jedno słowo.",
    "Read as a position: {at}.": "Odczytano jako położenie: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "W danych nie ma miejscowości „{town}”. „{name}” znajduje się tutaj: {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "W miejscowości „{town}” nie ma nic takiego. „{name}” znajduje się tutaj: {towns}.",
    "Something differs from what was entered: see the differences.":
      "Coś różni się od tego, co wpisano: zobacz różnice.",
    "These words are known, but not together: check the town or postcode.":
      "Te słowa są znane, ale nie razem: sprawdź miejscowość lub kod pocztowy.",
    "Unknown: {words}. Check the spelling.": "Nieznane: {words}. Sprawdź pisownię.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Tutaj nic nie ma, ale jest pod {at}: czy zamieniono szerokość z długością?",
    "There is no address or area here. Try a larger radius.":
      "Nie ma tu adresu ani obszaru. Spróbuj większego promienia.",
    "There is no data for {missing}, only for {existing}.": "Brak danych dla {missing}, są tylko dla {existing}.",
    "There is no postcode that starts like this.": "Żaden kod pocztowy tak się nie zaczyna.",
    "Several match equally well: enter more of the address.":
      "Kilka wyników pasuje tak samo dobrze: wpisz więcej z adresu.",
    "Several streets match equally well: enter the full street name.":
      "Kilka ulic pasuje tak samo dobrze: wpisz pełną nazwę ulicy.",
    "Several match equally well: choose one.": "Kilka wyników pasuje tak samo dobrze: wybierz jeden.",
    "Several match equally well: add the {part}.": "Kilka wyników pasuje tak samo dobrze. Dodaj: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Kilka wyników pasuje tak samo dobrze. Dodaj: {part} lub {other}.",
    town: "miejscowość",
    postcode: "kod pocztowy",
    county: "powiat",
    region: "region",
    country: "kraj",
  },
  pt: {
    "Enter at least one word.": "Escreva pelo menos uma palavra.",
    "Read as a position: {at}.": "Lido como posição: {at}.",
    "There is no town “{town}” in the data. “{name}” is in {towns}.":
      "Nos dados não há nenhuma localidade “{town}”. “{name}” fica em {towns}.",
    "There is nothing like it in “{town}”. “{name}” is in {towns}.":
      "Não há nada assim em “{town}”. “{name}” fica em {towns}.",
    "Something differs from what was entered: see the differences.":
      "Algo difere do que foi escrito: veja as diferenças.",
    "These words are known, but not together: check the town or postcode.":
      "Estas palavras são conhecidas, mas não juntas: verifique a localidade ou o código postal.",
    "Unknown: {words}. Check the spelling.": "Desconhecido: {words}. Verifique a ortografia.",
    "There is nothing here, but there is at {at}: were latitude and longitude swapped?":
      "Aqui não há nada, mas há em {at}: a latitude e a longitude foram trocadas?",
    "There is no address or area here. Try a larger radius.":
      "Aqui não há nenhum endereço nem área. Experimente um raio maior.",
    "There is no data for {missing}, only for {existing}.": "Não há dados para {missing}, só para {existing}.",
    "There is no postcode that starts like this.": "Nenhum código postal começa assim.",
    "Several match equally well: enter more of the address.":
      "Vários correspondem igualmente bem: escreva mais do endereço.",
    "Several streets match equally well: enter the full street name.":
      "Várias ruas correspondem igualmente bem: escreva o nome completo da rua.",
    "Several match equally well: choose one.": "Vários correspondem igualmente bem: escolha um.",
    "Several match equally well: add the {part}.": "Vários correspondem igualmente bem. Acrescente: {part}.",
    "Several match equally well: add the {part} or the {other}.":
      "Vários correspondem igualmente bem. Acrescente: {part} ou {other}.",
    town: "localidade",
    postcode: "código postal",
    county: "distrito",
    region: "região",
    country: "país",
  },
};
