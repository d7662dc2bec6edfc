uniform vec3 towards;
uniform sampler2DShadow from_light;
const vec3 KEY = vec3(-0.42, -0.68, 0.60);
const vec3 BACK = vec3(0.55, 0.72, 0.42);

float unshaded(vec4 in_light) {
    vec3 p = in_light.xyz / in_light.w * 0.5 + 0.5;
    float sum = 0.0;
    for (int i = -1; i <= 1; i++)
        for (int j = -1; j <= 1; j++) sum += texture(from_light, vec3(p.xy + vec2(i, j) * 0.0022, p.z - 0.006));
    return mix(0.55, 1.0, sum / 9.0);
}

vec3 lit(vec3 srgb, vec3 n, float open, vec4 in_light, float fluff) {
    vec3 own = pow(srgb, vec3(2.2));
    float key = max(dot(n, normalize(KEY)), 0.0);
    key = mix(key, key * 0.6 + 0.4 * (0.5 + 0.5 * dot(n, normalize(KEY))), 0.5 + 0.4 * fluff);
    float sky = 0.5 + 0.5 * n.z;
    float back = pow(max(dot(n, normalize(BACK)), 0.0), 1.5);
    float edge = pow(1.0 - abs(dot(n, towards)), 3.0);
    vec3 light = vec3(1.02, 0.985, 0.94) * 0.92 * key * unshaded(in_light) + mix(vec3(0.20, 0.17, 0.15), vec3(0.38, 0.40, 0.44), sky)
        + vec3(0.95, 0.90, 0.82) * 0.16 * back;
    vec3 out_ = own * light * open + own * edge * (0.10 + 0.45 * fluff) * open;
    return pow(clamp(out_, 0.0, 1.0), vec3(1.0 / 2.2));
}
