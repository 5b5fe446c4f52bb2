# Die Hinweise von Slack Water.
leave = {"{do:cast-off}"}, um abzulegen
coil = {"{do:coil-rope}"}, um die Leine aufzuschießen
steer = {"{steer}"} zum Steuern, {"{throttle}"} für mehr Fahrt
chart = {"{map-table}"} öffnet die Karte, {"{zoom.up}"} und {"{zoom.down}"} zoomen
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}: vorn verstauen
        [stern] {"{do:stow-3}"}: achtern verstauen
       *[other] {"{do:stow-2}"}: mittschiffs verstauen
    }
