#version 330
in vec3 at; in vec3 normal; in vec3 colour; in vec4 in_light;
out vec4 shown;
uniform float open;
uniform float gloss;
uniform vec3 towards_eye;
vec3 lit(vec3 srgb, vec3 n, float open, vec4 in_light, float fluff);
void main() {
    vec3 n = normalize(gl_FrontFacing ? normal : -normal);
    vec3 seen = lit(colour, n, open, in_light, 0.0);
    // Sparkle: a window high on the left, and its small answer low on the right.
    vec3 bounce = reflect(-towards_eye, n);
    float spark = smoothstep(0.90, 0.95, dot(bounce, normalize(vec3(-0.45, -0.70, 0.62))));
    float answer = 0.35 * smoothstep(0.93, 0.98, dot(bounce, normalize(vec3(0.5, -0.75, -0.35))));
    shown = vec4(seen + gloss * (spark + answer) * vec3(1.0, 0.98, 0.94), 1.0);
}
