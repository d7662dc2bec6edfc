#version 330
// A stitch as a small curved patch, lifted along its normal by the two legs of its V.
in vec2 uv;
in vec3 c0; in vec3 c1; in vec3 c2; in vec3 c3;
in vec3 n0; in vec3 n1; in vec3 n2; in vec3 n3;
in vec3 rgb;
in float fuzz;
in float seed;
uniform mat4 to_clip;
uniform mat4 to_light;
out vec3 at; out vec3 along_u; out vec3 along_v; out vec3 normal; out vec3 colour; out vec2 where; out vec4 in_light;
out float fluff; out float grain; out float thick; out float apart;
float height(vec2 p, float apart);

vec3 mixed(vec3 a, vec3 b, vec3 c, vec3 d, vec2 p) {
    return mix(mix(a, b, p.x), mix(d, c, p.x), p.y);
}

vec3 onto(vec3 q, vec3 corner, vec3 n) { return q - dot(q - corner, n) * n; }

// Phong tessellation (T. Boubekeur and M. Alexa, ACM Transactions on Graphics 27, 2008).
vec3 curved(vec2 p) {
    vec3 flat_at = mixed(c0, c1, c2, c3, p);
    vec3 bent = mixed(onto(flat_at, c0, n0), onto(flat_at, c1, n1), onto(flat_at, c2, n2), onto(flat_at, c3, n3), p);
    return mix(flat_at, bent, 0.6);
}

void main() {
    vec2 p = (uv - 0.5) * vec2(1.08, 1.24) + 0.5;
    float wide = 0.5 * (length(c1 - c0) + length(c2 - c3));
    normal = normalize(mixed(n0, n1, n2, n3, clip01(p)));
    vec3 base = curved(p);
    thick = min(wide, length(0.5 * (c2 + c3 - c0 - c1)) * 1.3);
    along_u = curved(p + vec2(0.02, 0.0)) - curved(p - vec2(0.02, 0.0));
    along_v = curved(p + vec2(0.0, 0.02)) - curved(p - vec2(0.0, 0.02));
    along_u /= 0.04; along_v /= 0.04;
    apart = mix(0.16, 0.30, smoothstep(1.25, 2.0, length(c1 - c0) / max(length(c2 - c3), 1e-3)));
    at = base + normal * height(p, apart) * thick;
    colour = rgb; where = p; fluff = fuzz; grain = seed;
    in_light = to_light * vec4(at + normal * 0.4, 1.0);
    gl_Position = to_clip * vec4(at, 1.0);
}
