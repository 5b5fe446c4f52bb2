# The texts of Slack Water in Japanese: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = 潮止まり
situation-deck = 甲板で
situation-helm = 舵で
situation-crane = クレーンで
situation-chart = 海図台で
situation-hail = 港を呼ぶ
situation-pause = 一時停止
group-moving = 移動
group-always = 常に
action-walk = 歩く
action-walk-about = 船首から船尾まで、甲板を歩きます。
action-walk-up = 船首へ歩く
action-walk-down = 船尾へ歩く
action-walk-left = 左舷へ歩く
action-walk-right = 右舷へ歩く
action-hurry = 急ぐ
action-hurry-about = 押している間、速く歩きます。
action-cast-off = 出港する
action-cast-off-about = 最後のもやい綱を解き、船を出します。
action-coil-rope = ロープを巻く
action-coil-rope-about = 水中に綱が残らなくなるまで、たるみを巻き取ります。
action-lantern = ランタン
action-lantern-about = 点けると霧の中でも見つけてもらえ、海図も読めます。
action-map-table = 海図台
action-map-table-about = 河口の海図を開きます。
action-steer = 舵を取る
action-steer-left = 取り舵
action-steer-right = 面舵
action-throttle = スロットル
action-throttle-about = スクリューの回る速さです。
action-horn = 汽笛
action-horn-about = 行く手にいる人に警告します。
action-swing = ジブを振る
action-swing-left = 左舷へ振る
action-swing-right = 右舷へ振る
action-hoist = 吊り上げと降ろし
action-hoist-up = 吊り上げる
action-hoist-down = 降ろす
action-fine = 微調整
action-fine-about = ダイバーのそばで作業できるよう、クレーンを遅くします。
action-stow-1 = 船首に積む
action-stow-2 = 中央に積む
action-stow-3 = 船尾に積む
action-pan = 海図を動かす
action-pan-up = 海図を上へ
action-pan-down = 海図を下へ
action-pan-left = 海図を左へ
action-pan-right = 海図を右へ
action-zoom = ズーム
action-zoom-up = 拡大
action-zoom-down = 縮小
action-send = 送る
action-resume = 再開
action-photo = 写真を撮る
# gone from the game; told of when an old profile has it
action-bilge-pump = ビルジポンプ
preset-left-handed = 左利き
preset-skipper = 船長（キーボード左半分）
preset-deckhand = 甲板員（キーボード右半分）
touch-stick = 移動スティック
touch-rope = ロープ
touch-coil = 巻き綱
touch-port = 左舷側
touch-starboard = 右舷側
touch-throttle = スロットルレバー
touch-horn = 汽笛

leave = {"{do:cast-off}"}と岸壁を離れる
coil = {"{do:coil-rope}"}とロープを巻く
steer = {"{steer}"}で舵、{"{throttle}"}で加速
chart = {"{map-table}"}で海図、{"{zoom.up}"}と{"{zoom.down}"}でズーム
stow =
    { $berth ->
        [bow] {"{do:stow-1}"}と船首に積む
        [stern] {"{do:stow-3}"}と船尾に積む
       *[other] {"{do:stow-2}"}と中央に積む
    }
at-deck = {"{do:cast-off}"}と出港、{"{walk}"}で歩く、{"{do:coil-rope}"}とロープを巻く
at-helm = {"{steer}"}で舵、{"{throttle}"}で加速、{"{do:horn}"}と汽笛
at-crane = {"{swing}"}で旋回、{"{hoist}"}で吊り上げ、{"{fine}"}で微調整
at-chart = {"{pan}"}で海図を動かす、{"{zoom.up}"}と{"{zoom.down}"}でズーム
at-pause = {"{do:resume}"}と再開
