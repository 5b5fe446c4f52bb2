# The texts of Slack Water in Turkish: its titles, and its prompts. A brace is written {"{"} in Fluent.

game = Durgun Su
situation-deck = Güvertede
situation-helm = Dümende
situation-crane = Vinçte
situation-chart = Harita masasında
situation-hail = Limana seslenme
situation-pause = Duraklatıldı
group-moving = Hareket
group-always = Her zaman
action-walk = Yürü
action-walk-about = Güvertede, baştan kıça.
action-walk-up = Pruvaya yürü
action-walk-down = Kıça yürü
action-walk-left = İskeleye yürü
action-walk-right = Sancağa yürü
action-hurry = Acele et
action-hurry-about = Basılı tutuldukça daha hızlı yürür.
action-cast-off = Halatları çöz
action-cast-off-about = Son halatı çözer: mavna yola çıkar.
action-coil-rope = Halatı topla
action-coil-rope-about = Suda halat kalmayana kadar boşu alır.
action-lantern = Fener
action-lantern-about = Yanarken başkaları seni siste görür, sen de haritayı.
action-map-table = Harita masası
action-map-table-about = Haliç haritasını açar.
action-steer = Dümen tut
action-steer-left = İskeleye dön
action-steer-right = Sancağa dön
action-throttle = Gaz
action-throttle-about = Pervanenin dönüş hızı.
action-horn = Düdük
action-horn-about = Yoldaki herkesi uyarır.
action-swing = Kolu çevir
action-swing-left = Kolu iskeleye çevir
action-swing-right = Kolu sancağa çevir
action-hoist = Kaldır ve indir
action-hoist-up = Kaldır
action-hoist-down = İndir
action-fine = İnce ayar
action-fine-about = Dalgıç yakınında çalışmak için vinci yavaşlatır.
action-stow-1 = Başa istifle
action-stow-2 = Ortaya istifle
action-stow-3 = Kıça istifle
action-pan = Haritayı kaydır
action-pan-up = Harita yukarı
action-pan-down = Harita aşağı
action-pan-left = Harita sola
action-pan-right = Harita sağa
action-zoom = Yakınlık
action-zoom-up = Yakınlaştır
action-zoom-down = Uzaklaştır
action-send = Gönder
action-resume = Sürdür
action-photo = Fotoğraf çek
# gone from the game; told of when an old profile has it
action-bilge-pump = Sintine pompası
preset-left-handed = Solak
preset-skipper = Kaptan, klavyenin sol yarısı
preset-deckhand = Tayfa, klavyenin sağ yarısı
touch-stick = hareket çubuğu
    .object = hareket çubuğunu
touch-rope = halat
    .object = halatı
touch-coil = halat kangalı
    .object = halat kangalını
touch-port = iskele tarafı
    .object = iskele tarafını
touch-starboard = sancak tarafı
    .object = sancak tarafını
touch-throttle = gaz kolu
    .object = gaz kolunu
touch-horn = düdük
    .object = düdüğü

leave = Rıhtımdan ayrılmak için: {"{do:cast-off}"}
coil = Halatı toplamak için: {"{do:coil-rope}"}
steer = Dümen: {"{steer}"}, daha çok gaz: {"{throttle}"}
chart = Harita: {"{map-table}"}, yakınlık: {"{zoom.up}"} ve {"{zoom.down}"}
stow =
    { $berth ->
        [bow] Başa istiflemek için: {"{do:stow-1}"}
        [stern] Kıça istiflemek için: {"{do:stow-3}"}
       *[other] Ortaya istiflemek için: {"{do:stow-2}"}
    }
at-deck = Ayrılmak için: {"{do:cast-off}"}; yürümek için: {"{walk}"}; halat için: {"{do:coil-rope}"}
at-helm = Dümen: {"{steer}"}, gaz: {"{throttle}"}, korna: {"{do:horn}"}
at-crane = Çevir: {"{swing}"}, kaldır: {"{hoist}"}, ince ayar: {"{fine}"}
at-chart = Haritayı kaydır: {"{pan}"}, yakınlık: {"{zoom.up}"} ve {"{zoom.down}"}
at-pause = Sürdürmek için: {"{do:resume}"}
