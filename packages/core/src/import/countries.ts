import { fold } from "../text/index.ts";

/** Codes alpha-2 and alpha-3 side by side (ISO 3166-1). Data, not code. */
const CODES = `
  ADAND AEARE AFAFG AGATG AIAIA ALALB AMARM AOAGO AQATA ARARG ASASM ATAUT AUAUS AWABW AXALA AZAZE BABIH BBBRB BDBGD BEBEL BFBFA BGBGR BHBHR BIBDI BJBEN
  BLBLM BMBMU BNBRN BOBOL BQBES BRBRA BSBHS BTBTN BVBVT BWBWA BYBLR BZBLZ CACAN CCCCK CDCOD CFCAF CGCOG CHCHE CICIV CKCOK CLCHL CMCMR CNCHN COCOL CRCRI
  CUCUB CVCPV CWCUW CXCXR CYCYP CZCZE DEDEU DJDJI DKDNK DMDMA DODOM DZDZA ECECU EEEST EGEGY EHESH ERERI ESESP ETETH FIFIN FJFJI FKFLK FMFSM FOFRO FRFRA
  GAGAB GBGBR GDGRD GEGEO GFGUF GGGGY GHGHA GIGIB GLGRL GMGMB GNGIN GPGLP GQGNQ GRGRC GSSGS GTGTM GUGUM GWGNB GYGUY HKHKG HMHMD HNHND HRHRV HTHTI HUHUN
  IDIDN IEIRL ILISR IMIMN ININD IOIOT IQIRQ IRIRN ISISL ITITA JEJEY JMJAM JOJOR JPJPN KEKEN KGKGZ KHKHM KIKIR KMCOM KNKNA KPPRK KRKOR KWKWT KYCYM KZKAZ
  LALAO LBLBN LCLCA LILIE LKLKA LRLBR LSLSO LTLTU LULUX LVLVA LYLBY MAMAR MCMCO MDMDA MEMNE MFMAF MGMDG MHMHL MKMKD MLMLI MMMMR MNMNG MOMAC MPMNP MQMTQ
  MRMRT MSMSR MTMLT MUMUS MVMDV MWMWI MXMEX MYMYS MZMOZ NANAM NCNCL NENER NFNFK NGNGA NINIC NLNLD NONOR NPNPL NRNRU NUNIU NZNZL OMOMN PAPAN PEPER PFPYF
  PGPNG PHPHL PKPAK PLPOL PMSPM PNPCN PRPRI PSPSE PTPRT PWPLW PYPRY QAQAT REREU ROROU RSSRB RURUS RWRWA SASAU SBSLB SCSYC SDSDN SESWE SGSGP SHSHN SISVN
  SJSJM SKSVK SLSLE SMSMR SNSEN SOSOM SRSUR SSSSD STSTP SVSLV SXSXM SYSYR SZSWZ TCTCA TDTCD TFATF TGTGO THTHA TJTJK TKTKL TLTLS TMTKM TNTUN TOTON TRTUR
  TTTTO TVTUV TWTWN TZTZA UAUKR UGUGA UMUMI USUSA UYURY UZUZB VAVAT VCVCT VEVEN VGVGB VIVIR VNVNM VUVUT WFWLF WSWSM YEYEM YTMYT ZAZAF ZMZMB ZWZWE
`;
/** Languages in which a country is known by name, beside English. */
const LANGS =
  "de fr es it pt nl sv da nb fi pl cs sk sl hr hu ro bg el et lv lt tr ru uk sr ja ko zh zh-Hant id vi th ar he fa hi ca".split(
    " ",
  );
/** What everybody writes, and no list has. */
const ALSO: Readonly<Record<string, string>> = {
  "u.s.a.": "US",
  "u.s.": "US",
  "united states of america": "US",
  "u.k.": "GB",
  uk: "GB",
  "great britain": "GB",
  england: "GB",
  scotland: "GB",
  wales: "GB",
  "northern ireland": "GB",
  "the netherlands": "NL",
  holland: "NL",
  "república argentina": "AR",
  "república checa": "CZ",
  "czech republic": "CZ",
  россия: "RU",
  "российская федерация": "RU",
};

const names = new Map<string, string>();
const plain = (name: string) => fold(name.toLowerCase()).text.trim();

/** Names of all countries, those of the first language before any other's. */
function read(langs: readonly string[]): void {
  for (const lang of langs) {
    const called = new Intl.DisplayNames(lang, { type: "region", fallback: "none" });
    for (const [code] of CODES.matchAll(/(?<![A-Z])[A-Z]{2}/g)) {
      const name = called.of(code);
      if (name && !names.has(plain(name))) names.set(plain(name), code);
    }
  }
}

let isWide = false;

/** The code of a country (ISO 3166-1 alpha-2) by one of the two codes, or by name in many languages; undefined of what is none. */
export function countryCode(written: string): string | undefined {
  const text = written.trim();
  if (/^[A-Za-z]{2}$/.test(text)) return text.toLowerCase() === "uk" ? "GB" : text.toUpperCase();
  if (text.length < 2 || text.length > LONGEST) return undefined;
  if (!names.size) {
    for (const [name, code] of Object.entries(ALSO)) names.set(plain(name), code);
    for (const [, two, three] of CODES.matchAll(/([A-Z]{2})([A-Z]{3})/g)) names.set(three.toLowerCase(), two);
    read(["en"]);
  }
  const known = names.get(plain(text));
  if (known || isWide) return known;
  isWide = true;
  read(LANGS);
  return names.get(plain(text));
}

/** Longer texts name no country. */
const LONGEST = 60;
