# The texts of Slack Water in English: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Slack Water
situation-deck = On deck
situation-helm = At the helm
situation-crane = In the crane
situation-chart = At the map table
situation-hail = Hailing the harbour
situation-pause = Paused
group-moving = Moving about
group-always = Always
action-walk = Walk
action-walk-about = Around the deck, from bow to stern.
action-walk-up = Walk to the bow
action-walk-down = Walk to the stern
action-walk-left = Walk to port
action-walk-right = Walk to starboard
action-hurry = Hurry
action-hurry-about = Walks faster for as long as it is down.
action-cast-off = Cast off
action-cast-off-about = Loosens the last rope: the barge is under way.
action-coil-rope = Coil the rope
action-coil-rope-about = Takes in the slack, until no line is left in the water.
action-lantern = Lantern
action-lantern-about = Lit, others see you in fog, and you see the chart.
action-map-table = Map table
action-map-table-about = Opens the chart of the estuary.
action-steer = Steer
action-steer-left = Steer to port
action-steer-right = Steer to starboard
action-throttle = Throttle
action-throttle-about = How fast the propeller turns.
action-horn = Horn
action-horn-about = Warns whoever is in the way.
action-swing = Swing the jib
action-swing-left = Swing to port
action-swing-right = Swing to starboard
action-hoist = Hoist
action-hoist-up = Hoist
action-hoist-down = Lower
action-fine = Fine control
action-fine-about = Slows the crane down, for work near a diver.
action-stow-1 = Stow at the bow
action-stow-2 = Stow amidships
action-stow-3 = Stow at the stern
action-pan = Move the chart
action-pan-up = Chart up
action-pan-down = Chart down
action-pan-left = Chart left
action-pan-right = Chart right
action-zoom = Zoom
action-zoom-up = Zoom in
action-zoom-down = Zoom out
action-send = Send
action-resume = Resume
action-photo = Photograph
# gone from the game; told of when an old profile has it
action-bilge-pump = Bilge pump
preset-left-handed = Left-handed
preset-skipper = Skipper, left half of the keyboard
preset-deckhand = Deckhand, right half of the keyboard
touch-stick = movement stick
    .object = the movement stick
touch-rope = rope
    .object = the rope
touch-coil = coil
    .object = the coil
touch-port = port side
    .object = the port side
touch-starboard = starboard side
    .object = the starboard side
touch-throttle = throttle lever
    .object = the throttle lever
touch-horn = horn
    .object = the horn

leave = {"{do:cast-off}"} to leave the quay
coil = {"{do:coil-rope}"} to coil the rope
steer = {"{steer}"} to steer, {"{throttle}"} for more way
chart = {"{map-table}"} opens the chart, {"{zoom.up}"} and {"{zoom.down}"} zoom
stow =
    { $berth ->
        [bow] {"{do:stow-1}"} to stow at the bow
        [stern] {"{do:stow-3}"} to stow at the stern
       *[other] {"{do:stow-2}"} to stow amidships
    }
at-deck = {"{do:cast-off}"} to leave, {"{walk}"} to walk, {"{do:coil-rope}"} to coil the rope
at-helm = {"{steer}"} to steer, {"{throttle}"} for more way, {"{do:horn}"} for the horn
at-crane = {"{swing}"} to swing, {"{hoist}"} to hoist, {"{fine}"} for care
at-chart = {"{pan}"} to move the chart, {"{zoom.up}"} and {"{zoom.down}"} to zoom
at-pause = {"{do:resume}"} to go on
