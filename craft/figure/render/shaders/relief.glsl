// Height of a stitch over its fabric, in stitch widths: two legs that lean apart from the foot, rounded, and the
// twist of the yarn on them.
vec2 clip01(vec2 p) { return clamp(p, 0.0, 1.0); }

float leg(vec2 p, float side, float apart) {
    vec2 foot = vec2(0.5 + side * apart, -0.10), top = vec2(0.5 + side * 0.28, 1.06);
    vec2 way = top - foot;
    float t = clamp(dot(p - foot, way) / dot(way, way), 0.0, 1.0);
    float away = length((p - foot - t * way) * vec2(1.0, 0.72));
    float r = 0.262;
    float round_ = sqrt(max(r * r - away * away, 0.0));
    float twist = 0.009 * sin(24.0 * t + side * 34.0 * (p.x - foot.x - t * way.x)) * step(0.0, r - away);
    return round_ * 0.66 + twist + 0.035 * (t - 0.5);
}

// apart: of the legs at their foot; a decrease stands on two stitches.
float height(vec2 p, float apart) { return max(leg(p, 1.0, apart), leg(p, -1.0, apart)); }
