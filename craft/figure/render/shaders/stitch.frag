#version 330
in vec3 at; in vec3 along_u; in vec3 along_v; in vec3 normal; in vec3 colour; in vec2 where; in vec4 in_light;
in float fluff; in float grain; in float thick; in float apart;
out vec4 shown;
float height(vec2 p, float apart);
vec3 lit(vec3 srgb, vec3 n, float open, vec4 in_light, float fluff);

float noise(vec3 p) { return fract(sin(dot(p, vec3(12.9898, 78.233, 37.719))) * 43758.5453); }

void main() {
    const float e = 0.015;
    float here = height(where, apart);
    float hu = (height(where + vec2(e, 0.0), apart) - here) / e * thick;
    float hv = (height(where + vec2(0.0, e), apart) - here) / e * thick;
    vec3 n = normalize(normal);
    vec3 tu = along_u / max(dot(along_u, along_u), 1e-6), tv = along_v / max(dot(along_v, along_v), 1e-6);
    float soft = mix(0.8, 0.35, fluff);
    n = normalize(n - soft * (hu * tu + hv * tv));
    float rough = (noise(floor(at * 9.0)) - 0.5) * (0.10 + 0.35 * fluff);
    n = normalize(n + rough * vec3(noise(at * 3.1) - 0.5, noise(at * 2.7) - 0.5, noise(at * 3.7) - 0.5));
    float open = mix(0.58, 1.0, smoothstep(0.02, 0.15, here));
    open = mix(open, 1.0, 0.45 * fluff) * (0.96 + 0.08 * grain);
    shown = vec4(lit(colour, n, open, in_light, fluff), 1.0);
}
