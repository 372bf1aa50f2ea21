// A dense product C = A·B of square matrices of small whole numbers: every sum is exact, so its bits are known.
// A group makes 64 × 64 numbers of C from panels of 64 × 16 and 16 × 64 in its own memory; an invocation makes 4 × 4.

const TILE = 64u;
const DEPTH = 16u;

@group(0) @binding(0) var<storage, read> a: array<f32>;
@group(0) @binding(1) var<storage, read> b: array<f32>;
@group(0) @binding(2) var<storage, read_write> c: array<f32>;
@group(0) @binding(3) var<uniform> order: vec4<u32>;

var<workgroup> panel_a: array<f32, 1024>;
var<workgroup> panel_b: array<f32, 1024>;

@compute @workgroup_size(256)
fn product(@builtin(workgroup_id) group: vec3<u32>, @builtin(local_invocation_index) lane: u32) {
    let n = order.x;
    let row = group.y * TILE;
    let column = group.x * TILE;
    let my_row = (lane / 16u) * 4u;
    let my_column = (lane % 16u) * 4u;
    var sums: array<vec4<f32>, 4>;
    for (var k = 0u; k < n; k += DEPTH) {
        for (var i = lane; i < TILE * DEPTH; i += 256u) {
            panel_a[i] = a[(row + i / DEPTH) * n + k + i % DEPTH];
            panel_b[i] = b[(k + i / TILE) * n + column + i % TILE];
        }
        workgroupBarrier();
        for (var d = 0u; d < DEPTH; d++) {
            let at = d * TILE + my_column;
            let right = vec4<f32>(panel_b[at], panel_b[at + 1u], panel_b[at + 2u], panel_b[at + 3u]);
            for (var r = 0u; r < 4u; r++) {
                sums[r] = fma(vec4<f32>(panel_a[(my_row + r) * DEPTH + d]), right, sums[r]);
            }
        }
        workgroupBarrier();
    }
    for (var r = 0u; r < 4u; r++) {
        for (var s = 0u; s < 4u; s++) {
            c[(row + my_row + r) * n + column + my_column + s] = sums[r][s];
        }
    }
}
