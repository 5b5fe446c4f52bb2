# The texts of Slack Water in French: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Étale
situation-deck = Sur le pont
situation-helm = À la barre
situation-crane = Dans la grue
situation-chart = À la table à cartes
situation-hail = Appel du port
situation-pause = Pause
group-moving = Déplacement
group-always = Toujours
action-walk = Marcher
action-walk-about = Sur le pont, de la proue à la poupe.
action-walk-up = Aller vers la proue
action-walk-down = Aller vers la poupe
action-walk-left = Aller à bâbord
action-walk-right = Aller à tribord
action-hurry = Se dépêcher
action-hurry-about = Accélère le pas tant que c’est enfoncé.
action-cast-off = Larguer les amarres
action-cast-off-about = Largue la dernière amarre : la barge est en route.
action-coil-rope = Lover le cordage
action-coil-rope-about = Ramène le mou jusqu’à ce qu’aucun cordage ne reste dans l’eau.
action-lantern = Lanterne
action-lantern-about = Allumée, elle vous signale dans la brume et éclaire la carte.
action-map-table = Table à cartes
action-map-table-about = Ouvre la carte de l’estuaire.
action-steer = Barrer
action-steer-left = Barrer à bâbord
action-steer-right = Barrer à tribord
action-throttle = Gaz
action-throttle-about = La vitesse de l’hélice.
action-horn = Corne
action-horn-about = Avertit ceux qui barrent la route.
action-swing = Tourner la flèche
action-swing-left = Tourner à bâbord
action-swing-right = Tourner à tribord
action-hoist = Lever et baisser
action-hoist-up = Lever
action-hoist-down = Baisser
action-fine = Contrôle fin
action-fine-about = Ralentit la grue, pour travailler près d’un plongeur.
action-stow-1 = Arrimer à la proue
action-stow-2 = Arrimer au milieu
action-stow-3 = Arrimer à la poupe
action-pan = Déplacer la carte
action-pan-up = Carte vers le haut
action-pan-down = Carte vers le bas
action-pan-left = Carte vers la gauche
action-pan-right = Carte vers la droite
action-zoom = Zoom
action-zoom-up = Zoom avant
action-zoom-down = Zoom arrière
action-send = Envoyer
action-resume = Reprendre
action-photo = Photographier
# gone from the game; told of when an old profile has it
action-bilge-pump = Pompe de cale
preset-left-handed = Gaucher
preset-skipper = Patron, moitié gauche du clavier
preset-deckhand = Matelot, moitié droite du clavier
touch-stick = stick de marche
    .object = le stick de marche
touch-rope = amarre
    .object = l’amarre
touch-coil = glène
    .object = la glène
touch-port = côté bâbord
    .object = le côté bâbord
touch-starboard = côté tribord
    .object = le côté tribord
touch-throttle = manette des gaz
    .object = la manette des gaz
touch-horn = corne
    .object = la corne

leave = {"{do:cast-off}"} pour quitter le quai
coil = {"{do:coil-rope}"} pour lover le cordage
steer = {"{steer}"} pour barrer, {"{throttle}"} pour accélérer
chart = {"{map-table}"} ouvre la carte, {"{zoom.up}"} et {"{zoom.down}"} zooment
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} pour arrimer à la proue
        [stern] {"{do:stow-3}"} pour arrimer à la poupe
       *[other] {"{do:stow-2}"} pour arrimer au milieu
    }
at-deck = {"{do:cast-off}"} pour partir, {"{walk}"} pour marcher, {"{do:coil-rope}"} pour lover le cordage
at-helm = {"{steer}"} pour barrer, {"{throttle}"} pour accélérer, {"{do:horn}"} pour la corne
at-crane = {"{swing}"} pour tourner, {"{hoist}"} pour lever, {"{fine}"} pour la précision
at-chart = {"{pan}"} pour déplacer la carte, {"{zoom.up}"} et {"{zoom.down}"} pour zoomer
at-pause = {"{do:resume}"} pour continuer
