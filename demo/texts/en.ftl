# The prompts of Slack Water. A brace is written {"{"} in Fluent.
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
