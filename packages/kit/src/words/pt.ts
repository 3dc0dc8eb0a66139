import type { Words } from "./say.ts";

/** Portuguese. */
const words: Words = {
  lang: "pt",
  words: {
    Suggestions: "Sugestões",
    "{n} suggestion.|{n} suggestions.": { one: "{n} sugestão.", other: "{n} sugestões." },
    "No suggestions.": "Nenhuma sugestão.",
    "Its numbers: right arrow": "Os seus números: seta para a direita",
    "Nothing found. Check the spelling, or type the address by hand.":
      "Nada encontrado. Verifique a ortografia ou escreva o endereço à mão.",
    "The address search does not work at the moment.": "A pesquisa de endereços não funciona neste momento.",
    "The address search cannot be reached. Check the connection, or type the address by hand.":
      "Não é possível chegar à pesquisa de endereços. Verifique a ligação ou escreva o endereço à mão.",
    "The address search takes too long. Try again, or type the address by hand.":
      "A pesquisa de endereços demora demasiado. Tente de novo ou escreva o endereço à mão.",
    "The address search may not be used on this page.": "A pesquisa de endereços não pode ser usada nesta página.",
    "Too many searches just now. Wait a moment, or type the address by hand.":
      "Há pesquisas a mais neste momento. Espere um pouco ou escreva o endereço à mão.",
    "The address search did not understand this. Type the address by hand.":
      "A pesquisa de endereços não percebeu isto. Escreva o endereço à mão.",
    "This address is no longer there. Choose another.": "Este endereço já não existe. Escolha outro.",
    "The address search does not work at the moment. Type the address by hand.":
      "A pesquisa de endereços não funciona neste momento. Escreva o endereço à mão.",
    street: "rua",
    block: "quarteirão",
    postcode: "código postal",
    place: "lugar",
    district: "bairro",
    town: "localidade",
    county: "concelho",
    region: "região",
    country: "país",
    "{n} address fits. Which one is it?|{n} addresses fit. Which one is it?": {
      one: "{n} endereço serve. É este?",
      other: "{n} endereços servem. Qual deles é?",
    },
    "Use what I typed": "Usar o que escrevi",
    "Another address": "Outro endereço",
    "Nothing was found. Check the spelling, or go on with what you typed.":
      "Nada foi encontrado. Verifique a ortografia ou continue com o que escreveu.",
    "Finding this device …": "A procurar este dispositivo …",
    "No address lies near this device. Type it, or press the map.":
      "Não há endereço perto deste dispositivo. Escreva-o ou toque no mapa.",
    "This device is within {length} of here.": "Este dispositivo está a menos de {length} daqui.",
    "Is it this place?": "É este lugar?",
    "Is it this address?": "É este endereço?",
    "No address lies near this spot.": "Não há endereço perto deste ponto.",
    "Found, but only {where}. Show the house on the map if you can.":
      "Encontrado, mas apenas {where}. Mostre a casa no mapa, se puder.",
    "at the house itself": "na própria casa",
    "between the houses beside it": "entre as casas ao lado",
    "somewhere on the street": "algures na rua",
    "in the middle of the area": "no meio da zona",
    "The picture stands here once the place is known.": "A imagem fica aqui quando se souber o lugar.",
    "The picture did not come.": "A imagem não chegou.",
    "Map of {place}": "Mapa de {place}",
    "Map of the place": "Mapa do lugar",
    Choose: "Escolher",
    Unit: "Unidade",
    "known once both ends are": "sabe-se quando se souberem os dois extremos",
    "This browser cannot say where the device is.": "Este navegador não consegue dizer onde está o dispositivo.",
    "Type the address, or put the marker where it is.": "Escreva o endereço ou ponha a marca onde está.",
    "The position is only told to pages that came over a safe connection.":
      "A posição só é dita a páginas que vieram por uma ligação segura.",
    "Open the page by https, or type the address.": "Abra a página por https ou escreva o endereço.",
    "This page may not know where the device is.": "Esta página não pode saber onde está o dispositivo.",
    "Allow it in the browser's settings for this page, or type the address.":
      "Permita-o para esta página nas definições do navegador ou escreva o endereço.",
    "The device does not know where it is.": "O dispositivo não sabe onde está.",
    "Switch its position on, or type the address.": "Ligue a posição ou escreva o endereço.",
    "Finding the device took too long.": "Encontrar o dispositivo demorou demasiado.",
    "Try again, best near a window, or type the address.":
      "Tente de novo, de preferência perto de uma janela, ou escreva o endereço.",
    "The device is only known to be within {length} of here.":
      "Do dispositivo só se sabe que está a menos de {length} daqui.",
    "Put the marker on the right house.": "Ponha a marca na casa certa.",
    Streets: "Ruas",
    Ground: "Terreno",
    Heights: "Alturas",
    "Ground with streets": "Terreno com ruas",
    "Zoom in": "Aproximar",
    "Zoom out": "Afastar",
    "Kind of sheet": "Tipo de folha",
    "Move the map under an aim": "Mover o mapa sob uma mira",
    "Show it in relief": "Mostrar em relevo",
    "Show where this device is": "Mostrar onde está este dispositivo",
    "Parts of the map did not come. They are asked for again.": "Faltam partes do mapa. São pedidas de novo.",
    "Take this address": "Ficar com este endereço",
    Markers: "Marcas",
    Close: "Fechar",
    "Open in a map application": "Abrir numa aplicação de mapas",
    "The way there": "O caminho até lá",
    "Copy coordinates": "Copiar coordenadas",
    "Copied: {text}": "Copiado: {text}",
    "No map application answered. Copied instead: {text}":
      "Nenhuma aplicação de mapas respondeu. Copiado em vez disso: {text}",
    "The coordinates: {text}": "As coordenadas: {text}",
    "{label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.":
      "{label}. As setas movem-no, mais e menos mudam a escala, Enter fica com o endereço do meio.",
    "{sheet}, {length} across, around {lat}, {lon}.": "{sheet}, {length} de largura, em volta de {lat}, {lon}.",
    "{sheet}, around {lat}, {lon}.": "{sheet}, em volta de {lat}, {lon}.",
    "{n}° north": "{n}° norte",
    "{n}° south": "{n}° sul",
    "{n}° east": "{n}° este",
    "{n}° west": "{n}° oeste",
    "{n} marker stands on the map.|{n} markers stand on the map.": {
      one: "{n} marca está no mapa.",
      other: "{n} marcas estão no mapa.",
    },
    "A marker stands at {places}.": "Há uma marca em {places}.",
    "This place has no position yet.": "Este lugar ainda não tem posição.",
    "{n} of {all} places has no position yet.|{n} of {all} places have no position yet.": {
      one: "{n} de {all} lugares ainda não tem posição.",
      other: "{n} de {all} lugares ainda não têm posição.",
    },
    "Marker {n}": "Marca {n}",
    "{n} of {all}": "{n} de {all}",
    "Enter opens": "Enter abre",
    "M moves": "M move",
    "arrows move, with Shift by little": "as setas movem, com Shift pouco",
    "Enter drops": "Enter pousa",
    "Esc puts back": "Esc repõe",
    "{label} in relief. Arrow keys turn and tilt it, plus and minus go nearer and farther, N turns it north, 0 looks straight down, Escape goes back to the flat map.":
      "{label} em relevo. As setas rodam-no e inclinam-no, mais e menos aproximam e afastam, N roda-o para norte, 0 olha a direito para baixo, Escape volta ao mapa plano.",
    "Flat map": "Mapa plano",
    "Straight down": "A direito para baixo",
    "North up": "Norte em cima",
    "Preparing the relief …": "A preparar o relevo …",
    "{n} m above the sea": "{n} m acima do mar",
    "{place}, {n} m above the sea": "{place}, {n} m acima do mar",
    "The relief did not come.": "O relevo não chegou.",
    "What draws the relief did not come. Check the connection, then try again.":
      "O que desenha o relevo não chegou. Verifique a ligação e tente de novo.",
    "This browser cannot draw the ground in relief. The flat map stays.":
      "Este navegador não consegue desenhar o terreno em relevo. Fica o mapa plano.",
    "Something is wrong with this address": "Há algo errado neste endereço",
    "What is wrong?": "O que está errado?",
    Send: "Enviar",
    "Leave it": "Deixar",
    "Thank you. Somebody will look at it.": "Obrigado. Alguém vai ver.",
  },
};

export default words;
