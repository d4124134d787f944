/** What a figure behind a rating, or before a part of the bike, is of. */
export const THING_AFTER =
  /^(battery|pack|system|motor|hub|charger|controller|bike|fuse|max|peak(?! was)|rated|nominal|setup|mid|rear|front|version|batteries|one\b|light|usb|outlet|and (a )?#_(Ah|Wh))\b/;
export const RATED =
  /\b(rated|peak|peaks|max|maximum|(?<!\b(?:gone|went|goes|going|jumps|jumped|climbs|shoots|shot|it's|it is|comes|came|back|pushing) )up to(?: about| around| maybe)? $|nominal|controller (is|allows|gives|does)|limited to|charger|charging|charges|boost of|motor (is(?! (?:doing|giving|putting|pulling|at|on|drawing|adding|only|now))|has|of)|capable of|goes (from|to)|scale)\b/;
