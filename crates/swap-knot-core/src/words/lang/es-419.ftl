# Words for players: Spanish of Latin America; only what differs from Spanish.
# Not reviewed by somebody who grew up with it.
# keys
key-ContextMenu = tecla Menú
    .object = la tecla Menú
    .held = presionada la tecla Menú
    .short = Menú
key-Enter = Enter
    .short = Enter
key-ShiftLeft = Shift izquierda
    .short = Shift izq.
key-ShiftRight = Shift derecha
    .short = Shift der.
key-Space = barra espaciadora
    .object = la barra espaciadora
    .held = presionada la barra espaciadora
    .short = Espacio
key-ArrowDown = flecha abajo
    .object = la flecha abajo
    .held = presionada la flecha abajo
    .short = ↓
key-ArrowLeft = flecha izquierda
    .object = la flecha izquierda
    .held = presionada la flecha izquierda
    .short = ←
key-ArrowRight = flecha derecha
    .object = la flecha derecha
    .held = presionada la flecha derecha
    .short = →
key-ArrowUp = flecha arriba
    .object = la flecha arriba
    .held = presionada la flecha arriba
    .short = ↑
key-LaunchScreenSaver = Protector de pantalla
key-numpad = { $key } del teclado num.
    .object = la tecla { $key } del teclado numérico
    .held = presionada la tecla { $key } del teclado numérico
    .short = Num { $key }
    .board = { $key }

# how a key stands in a phrase: its legend or name alone, or with the forms that the language wants
key = { $key }
    .held = presionada la tecla { $key }
key-row = { $keys }
    .held = presionadas las teclas { $keys }

# modifiers on either side
modifier-Shift = Shift

# mouse
mouse-left = botón izquierdo del mouse
    .object = el botón izquierdo del mouse
    .held = presionado el botón izquierdo del mouse
    .short = Clic izquierdo
mouse-right = botón derecho del mouse
    .object = el botón derecho del mouse
    .held = presionado el botón derecho del mouse
    .short = Clic derecho
mouse-middle = botón central del mouse
    .object = el botón central del mouse
    .held = presionado el botón central del mouse
    .short = Clic central
mouse-back = botón atrás del mouse
    .object = el botón atrás del mouse
    .held = presionado el botón atrás del mouse
    .short = Mouse atrás
mouse-forward = botón adelante del mouse
    .object = el botón adelante del mouse
    .held = presionado el botón adelante del mouse
    .short = Mouse adelante
mouse-button = botón { $number } del mouse
    .object = el botón { $number } del mouse
    .held = presionado el botón { $number } del mouse
    .short = Mouse { $number }
mouse-move = mouse
    .object = el mouse
    .short = Mouse
wheel = rueda del mouse
    .object = la rueda del mouse
    .short = Rueda

# a pad's button by what is printed on it
pad-mark = { $mark }
    .held = presionado { $mark }

# pads, by place
pad-south = botón inferior de los cuatro
    .object = el botón inferior de los cuatro
    .held = presionado el botón inferior de los cuatro
    .short = inferior de los 4
pad-east = botón derecho de los cuatro
    .object = el botón derecho de los cuatro
    .held = presionado el botón derecho de los cuatro
    .short = derecho de los 4
pad-west = botón izquierdo de los cuatro
    .object = el botón izquierdo de los cuatro
    .held = presionado el botón izquierdo de los cuatro
    .short = izquierdo de los 4
pad-north = botón superior de los cuatro
    .object = el botón superior de los cuatro
    .held = presionado el botón superior de los cuatro
    .short = superior de los 4
pad-shoulder-left = bumper izquierdo
    .object = el bumper izquierdo
    .held = presionado el bumper izquierdo
    .short = bumper izq.
pad-shoulder-right = bumper derecho
    .object = el bumper derecho
    .held = presionado el bumper derecho
    .short = bumper der.
pad-center-left = botón central izquierdo
    .object = el botón central izquierdo
    .held = presionado el botón central izquierdo
    .short = central izq.
pad-center-right = botón central derecho
    .object = el botón central derecho
    .held = presionado el botón central derecho
    .short = central der.
pad-center = botón central del control
    .object = el botón central del control
    .held = presionado el botón central del control
    .short = botón central
pad-stick-left-click = clic del stick izquierdo
    .object = el stick izquierdo
    .at = el clic del stick izquierdo
    .subject = el clic del stick izquierdo
    .held = presionado el stick izquierdo
    .short = clic stick izq.
pad-stick-right-click = clic del stick derecho
    .object = el stick derecho
    .at = el clic del stick derecho
    .subject = el clic del stick derecho
    .held = presionado el stick derecho
    .short = clic stick der.
pad-up = cruceta arriba
    .object = arriba en la cruceta
    .at = la cruceta (arriba)
    .held = presionada la cruceta hacia arriba
    .short = cruceta ↑
pad-down = cruceta abajo
    .object = abajo en la cruceta
    .at = la cruceta (abajo)
    .held = presionada la cruceta hacia abajo
    .short = cruceta ↓
pad-left = cruceta izquierda
    .object = izquierda en la cruceta
    .at = la cruceta (izquierda)
    .held = presionada la cruceta hacia la izquierda
    .short = cruceta ←
pad-right = cruceta derecha
    .object = derecha en la cruceta
    .at = la cruceta (derecha)
    .held = presionada la cruceta hacia la derecha
    .short = cruceta →
pad-paddle = paleta { $number }
    .object = la paleta { $number }
    .held = presionada la paleta { $number }
pad-gyro = movimiento del control
    .object = el movimiento del control
    .moved = el control
pad-cross = cruceta
    .object = la cruceta
    .held = presionada la cruceta
key-arrows = teclas de flecha
    .object = las teclas de flecha
    .held = presionadas las teclas de flecha

# other controllers, by what they report
hid-button = botón { $number }
    .object = el botón { $number }
    .held = presionado el botón { $number }
hid-hat = botón hat
    .object = el botón hat
axis-throttle = palanca del acelerador
    .object = la palanca del acelerador

# phrases; the variable picks the form of what the player works
do-press = Presiona { $input }
do-tap = Presiona brevemente { $input }
do-double-tap = Presiona dos veces { $input }
do-press-together = Presiona a la vez { $input }
decimal-sign = .

# menus
device-mouse = mouse
device-gamepad = control
column-keyboard = Teclado y mouse
column-gamepad = Control

# ready-made menus
menu-find = Buscar presionando…
menu-press = Presiona…
menu-listen = Presiona la nueva tecla o botón para “{ $title }”
menu-find-hint = Presiona una tecla o un botón para ver sus acciones
menu-cancel = Presiona { $input } para cancelar ({ $seconds } s)
menu-taken = “{ $title }” ya usa { $at }.
menu-nothing-here = No se encontró nada.

# the controls screen
page-pad = Control
section-easing = Mantener y presionar
listen-hold = Para usar { $at } aquí, sigue presionando.
reset-only = Solo “{ $title }”
reset-action = Todo lo de “{ $title }”
keep-work = { $do } (“{ $title }”) para conservarlos.
family-gone = Este juego no tiene símbolos de botones con el nombre “{ $name }”.
delete-title = ¿Eliminar “{ $title }”?
try-what = Presiona lo que quieras para ver qué hace. En el juego no pasa nada.

# refusals; the variables of inputs pick their form here as well
refused-no-such-preset = Este juego no tiene el preajuste “{ $preset }”.
refused-off = “{ $title }” no está disponible en este juego.
refused-fixed = En este juego no se puede cambiar “{ $title }”.
refused-essential = “{ $title }” no puede quedar sin asignar ({ $column }). Elige antes otra tecla o botón.
refused-not-eased = En este juego no se puede cambiar cómo se presiona “{ $title }”.
refused-other-column = No puedes usar { $at } en “{ $column }”.
refused-nothing-to-give = “{ $title }” no tiene nada que intercambiar.
refused-may-not-share = En este juego, “{ $first }” no puede usar la misma tecla o botón que “{ $second }”.
refused-full = “{ $title }” ya no admite más ({ $column }: { $count } como máximo). Borra algo antes.

# conflicts: what the first is on, in any form, and the name of what the other is on
conflict-same = Tanto “{ $first }” como “{ $second }” usan { $at }.
conflict-apart = Presionar una vez puede activar tanto “{ $first }” ({ $name }) como “{ $second }” ({ $other }).
conflict-letter = Tanto “{ $first }” ({ $name }) como “{ $second }” ({ $other }) usan la misma tecla en tu teclado.
conflict-manner = Tanto “{ $first }” como “{ $second }” usan { $at } y se estorban.
conflict-seats = Los dos jugadores usan { $at }: uno para “{ $first }”, otro para “{ $second }”.
notice-longer = “{ $first }” ({ $name }) tiene prioridad sobre “{ $second }” ({ $other }).
notice-both = “{ $first }” ({ $name }) puede ocurrir a la vez que “{ $second }” ({ $other }).

# settings and what they are set to
knob-threshold = Activación a partir de
ease-toggle = Presionar una vez activa, otra desactiva
ease-latch = En combinaciones, presionar en vez de mantener
ease-press = Presionar en vez de mantener
ease-tap-within = Tiempo para presionar brevemente
ease-double-tap-within = Tiempo para presionar dos veces
ease-together-within = Tiempo para presionar a la vez

# reports of loading, keeping and bringing together
set-aside-removed = “{ $title }” ya no está en el juego. Tus ajustes para esta acción se conservan.
set-aside-unknown = Esta versión del juego no conoce “{ $title }”. Tus ajustes para esta acción se conservan.
gave-way = “{ $title }” se queda sin { $at }, que usas para “{ $by }”.
note-no-letter = “{ $title }”: tu teclado no tiene ninguna tecla para { $letter }.
note-one-key = “{ $title }”: en tu teclado, { $name } es una sola tecla.
note-stands-in = “{ $title }”: tu teclado no tiene ninguna tecla para su letra, así que se usa otra.
note-too-many = “{ $title }” tiene más teclas y botones de los que caben. Se omitió uno.
load-unreachable = Tus controles guardados no se pueden leer en este momento.
saved-with-other-changes = Tus controles también se cambiaron en otro lugar. Se conservan todos los cambios.
locker-disk = No se pudo guardar el perfil. Revisa que haya espacio libre y que el juego pueda guardar archivos.

# signs, as they are spoken
sign-hash = numeral

# controllers without a known mapping
controller-untaught = Dispositivo nuevo detectado. Si es un control, configúralo en “{ $page }”, en la pantalla de controles.
controllers-text = Configura un dispositivo una vez y el juego lo usará como control.
controller-pad = configurado como control
controller-no-pad = no es un control
teach-offer = Dispositivo nuevo. ¿Configurarlo como control?
teach-no-pad = No es un control
teach-how = Presiona, aprieta o mueve, y luego suelta.
teach-nothing = No se configuró nada.
teach-kept = Configuración conservada. Ahora el juego usa este dispositivo como control.
mappings-unreachable = La configuración de tus dispositivos no se puede leer en este momento.

# several players
devices-text = Presiona algo en un dispositivo para iluminar su fila.

# outcomes
outcome-toggled-off = se desactivó
outcome-wrong-order = hay que presionar antes: { $part }
outcome-longer-chord = lo usó una combinación más larga: { $other }
outcome-not-together = no se presionó a la vez
outcome-not-far-enough = no se presionó lo suficiente
outcome-too-short = no se mantuvo lo suficiente
outcome-too-long = se mantuvo demasiado
outcome-second-too-late = la segunda vez llegó tarde
outcome-broken-chord = interrupción: entró otra combinación
outcome-broken-focus = interrupción: saliste de la ventana del juego
outcome-broken-unplugged = interrupción: se desconectó el dispositivo
outcome-broken-rig = interrupción: cambiaron los controles
outcome-broken-spent = interrupción: el juego ya lo usó
outcome-broken-let-go = interrupción: soltaste
outcome-worked = funcionó
# further
axis-brake = pedal del freno
    .object = el pedal del freno
    .held = presionado el pedal del freno
axis-accelerator = pedal del acelerador
    .object = el pedal del acelerador
    .held = presionado el pedal del acelerador
axis-clutch = pedal del embrague
    .object = el pedal del embrague
    .held = presionado el pedal del embrague

# The place for details, and how a binding is worked
details-preset = Del preajuste “{ $preset }”
section-unreachable = Sin asignar en “{ $column }”
landed = { $column }: “{ $title }” ahora usa { $at }.
manner-press = presionar
value-percent = { $number }%
