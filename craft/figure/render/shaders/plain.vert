#version 330
// The fabric behind the stitches, beads and threads: triangles with a normal and a colour at every corner.
in vec3 place; in vec3 facing; in vec3 rgb;
uniform mat4 to_clip;
uniform mat4 to_light;
out vec3 at; out vec3 normal; out vec3 colour; out vec4 in_light;
void main() {
    at = place;
    normal = facing; colour = rgb;
    in_light = to_light * vec4(at + facing * 0.8, 1.0);
    gl_Position = to_clip * vec4(at, 1.0);
}
