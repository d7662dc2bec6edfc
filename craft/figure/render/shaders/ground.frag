#version 330
in vec2 where;
uniform sampler2D dark;
uniform vec2 size;
out vec4 shown;
void main() {
    // Faded towards the edges of the picture, so that a shadow never ends in a straight line.
    vec2 in_from = min(gl_FragCoord.xy, size - gl_FragCoord.xy) / size;
    float fade = smoothstep(0.0, 0.14, in_from.x) * smoothstep(0.0, 0.14, in_from.y);
    shown = vec4(0.16, 0.12, 0.09, texture(dark, where).r * fade);
}
