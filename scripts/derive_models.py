"""Derives the diarizer's model files from the package that carries them: `make models`.

The shared library of `moonshine-voice` 0.1.0 holds, in onnxruntime's own format, the segmentation and the speaker
embedding of “speaker-diarization-community-1” (CC BY 4.0). Both are cut out and turned into plain ONNX: the
segmentation up to its log probabilities, the embedding up to its pooling, so that it runs once over the sound; its last
layer becomes a float16 array [weights, bias] of shape (256, 5121). Every file stays below 4 MB.

The same versions give the same bytes: the digests in `networks.py` are compared at the end.
"""

import hashlib
import io
import sys
from importlib.resources import files
from pathlib import Path
from typing import Any

import numpy as np
import onnx
import onnxruntime
from onnx import AttributeProto, GraphProto, NodeProto, TensorProto, ValueInfoProto, helper, numpy_helper

sys.path.insert(0, str(Path(onnxruntime.__file__).parent / "tools/ort_format_model"))
from ort_flatbuffers_py.fbs.InferenceSession import InferenceSession
from ort_flatbuffers_py.fbs.TensorTypeAndShape import TensorTypeAndShape

MODELS = Path(__file__).parents[1] / "src/nuntius/core/speech/diarization/models"
CUTS = {  # name: first byte and end in libmoonshine.so, sha256 of the piece
    "segmentation": (10869184, 12463264, "9715e3996ef181252aa1cc0c9398060f42b2c984c2fb65e3604262555e2efb1a"),
    "embedding": (12463296, 19439216, "6e4af7d49562e6e7042672e444d6394935cb2c23c3a7dd4919da45922b91735b"),
}
POOLED = "/resnet/pool/Reshape_output_0"  # what the pooling of the embedding reads
LAST_LAYER = "resnet.seg_1"
OPSET, IR_VERSION = 17, 8


def cut(name: str) -> Any:
    """The graph of one piece of the shared library, as a flatbuffer."""
    first, end, digest = CUTS[name]
    piece = (Path(str(files("moonshine_voice"))) / "libmoonshine.so").read_bytes()[first:end]
    assert hashlib.sha256(piece).hexdigest() == digest, "this is not moonshine-voice 0.1.0"
    return InferenceSession.GetRootAsInferenceSession(piece, 0).Model().Graph()


def text(raw: bytes | None) -> str:
    return raw.decode() if raw else ""


def each(owner: Any, field: str) -> list[Any]:
    """All entries of a vector in a flatbuffer."""
    return [getattr(owner, field)(i) for i in range(getattr(owner, f"{field}Length")())]


def tensor(flat: Any) -> TensorProto:
    made = TensorProto(name=text(flat.Name()), data_type=flat.DataType(), dims=each(flat, "Dims"))
    if flat.StringDataLength():
        made.string_data.extend(each(flat, "StringData"))
    else:
        made.raw_data = flat.RawDataAsNumpy().tobytes() if flat.RawDataLength() else b""
    return made


def attribute(flat: Any) -> AttributeProto:
    name, kind = text(flat.Name()), flat.Type()
    single = {
        AttributeProto.FLOAT: lambda: float(flat.F()),
        AttributeProto.INT: lambda: int(flat.I()),
        AttributeProto.STRING: flat.S,
        AttributeProto.TENSOR: lambda: tensor(flat.T()),
        AttributeProto.GRAPH: lambda: graph(flat.G(), inner=True),
    }
    if kind in single:
        return helper.make_attribute(name, single[kind]())
    many = {AttributeProto.FLOATS: "Floats", AttributeProto.INTS: "Ints", AttributeProto.STRINGS: "Strings"}
    return helper.make_attribute(name, each(flat, many[kind]), attr_type=kind)


def node(flat: Any, number: int) -> NodeProto:
    made = helper.make_node(
        text(flat.OpType()),
        [text(name) for name in each(flat, "Inputs")],
        [text(name) for name in each(flat, "Outputs")],
        name=text(flat.Name()) or f"n{number}",
        domain=text(flat.Domain()),
    )
    made.attribute.extend(attribute(each_one) for each_one in each(flat, "Attributes"))
    return made


def value(flat: Any, name: str) -> ValueInfoProto:
    """Type and shape of a named value; float of any shape where the graph does not tell."""
    for argument in each(flat, "NodeArgs"):
        if text(argument.Name()) == name and argument.Type():
            table, kind = argument.Type().Value(), TensorTypeAndShape()
            kind.Init(table.Bytes, table.Pos)
            shape = kind.Shape()
            sizes = None if shape is None else [size(dim.Value()) for dim in each(shape, "Dim")]
            return helper.make_tensor_value_info(name, kind.ElemType(), sizes)
    return helper.make_tensor_value_info(name, TensorProto.FLOAT, None)


def size(dimension: Any) -> str | int | None:
    return text(dimension.DimParam()) or (dimension.DimValue() if dimension.DimType() == 1 else None)


def ordered(nodes: list[NodeProto], given: set[str]) -> list[NodeProto]:
    """The nodes, each behind those whose outputs it reads."""
    made = {output for each_one in nodes for output in each_one.output} | given
    ready, done, rest = set(given), [], nodes
    while rest:
        later = []
        for each_one in rest:
            if all(name in ready or name not in made for name in each_one.input if name):
                done.append(each_one)
                ready.update(each_one.output)
            else:
                later.append(each_one)
        assert len(later) < len(rest), "the graph has a ring"
        rest = later
    return done


def graph(flat: Any, inner: bool = False, outputs: list[str] | None = None) -> GraphProto:
    weights = [tensor(each_one) for each_one in each(flat, "Initializers")]
    names = {weight.name for weight in weights}
    inputs = [text(name) for name in each(flat, "Inputs")]
    nodes = [node(each_one, number) for number, each_one in enumerate(each(flat, "Nodes"))]
    return helper.make_graph(
        ordered(nodes, names | set(inputs)),
        "g",
        [] if inner else [value(flat, name) for name in inputs if name not in names],
        [value(flat, name) for name in outputs or [text(name) for name in each(flat, "Outputs")]],
        weights,
    )


def trimmed(made: GraphProto) -> GraphProto:
    """Without the nodes, weights and inputs that no output needs."""
    needed, kept = {output.name for output in made.output}, []
    for each_one in reversed(made.node):
        if needed & set(each_one.output):
            kept.append(each_one)
            needed |= set(each_one.input)
            inner = [a.g for a in each_one.attribute if a.type == AttributeProto.GRAPH]
            needed |= {name for g in inner for inside in g.node for name in inside.input}
    for field, wanted in (
        (made.node, kept[::-1]),
        (made.initializer, [w for w in made.initializer if w.name in needed]),
        (made.input, [i for i in made.input if i.name in needed]),
    ):
        copies = [type(item).FromString(item.SerializeToString()) for item in wanted]
        del field[:]
        field.extend(copies)
    return made


def serialised(made: GraphProto) -> bytes:
    model = helper.make_model(made, opset_imports=[helper.make_opsetid("", OPSET)], ir_version=IR_VERSION)
    onnx.checker.check_model(model)
    return bytes(model.SerializeToString())


def segmentation(flat: Any) -> GraphProto:
    """The segmentation up to the log probabilities of its classes, before the most likely one is taken."""
    (softmax,) = [n for n in each(flat, "Nodes") if text(n.OpType()) == "LogSoftmax"]
    made = trimmed(graph(flat, outputs=[text(softmax.Outputs(0))]))
    made.node[-1].output[0] = "classes"
    made.output[0].CopyFrom(helper.make_tensor_value_info("classes", TensorProto.FLOAT, ["b", 589, 7]))
    return made


def projection(flat: Any) -> bytes:
    """The last layer of the embedding, (256, 5121): weights unpacked from 8 bits, then the bias."""
    stored = {text(t.Name()): numpy_helper.to_array(tensor(t)) for t in each(flat, "Initializers")}
    packed = stored[f"{LAST_LAYER}.weight_quantized"].astype(np.float32)
    weights = packed * stored[f"{LAST_LAYER}.weight_scale"] + stored[f"{LAST_LAYER}.weight_zero_point"]
    both = np.concatenate([weights, stored[f"{LAST_LAYER}.bias"][:, None]], 1).astype(np.float16)
    out = io.BytesIO()
    np.save(out, both)
    return out.getvalue()


def derive() -> dict[str, bytes]:
    embedding = cut("embedding")
    trunk = serialised(trimmed(graph(embedding, outputs=[POOLED])))
    half = -(-len(trunk) // 2)
    return {
        "segmentation.onnx": serialised(segmentation(cut("segmentation"))),
        "trunk.onnx.1": trunk[:half],
        "trunk.onnx.2": trunk[half:],
        "projection.npy": projection(embedding),
    }


if __name__ == "__main__":
    for name, data in derive().items():
        held = MODELS / name
        same = held.exists() and held.read_bytes() == data
        held.write_bytes(data)
        print(
            f"{name:20s} {len(data):9d} bytes  {hashlib.sha256(data).hexdigest()}  {'as before' if same else 'CHANGED'}"
        )
