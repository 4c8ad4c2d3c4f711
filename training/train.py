"""Trains the network that hears a coach's calls, and writes models/calls.bin.

    python3 training/train.py FOLDER OUT [epochs] [threads]

FOLDER holds features.*.f32, labels.*.u8 and sounding.*.u8, as training/scenes.ts writes them; scenes that begin with
50000 are kept aside to choose the best epoch by. Runs on Debian's python3-torch, on a processor, in about half an hour.
"""
import glob
import json
import struct
import sys
import time

import numpy as np
import torch
from torch import nn

BANDS, FRAMES, STEPS = 40, 2400, 600
CLASSES = 6
LOW_HZ, HIGH_HZ = 60, 7600  # of the bands
SOUNDING = 2  # speech, music
SOUNDING_SHARE = 0.1  # of the loss: calls come first
EITHER = 255
WIDTH = 80
DILATIONS = [1, 2, 4, 8, 16, 1]
BATCH = 12


class Block(nn.Module):
    def __init__(self, dilation):
        super().__init__()
        self.conv = nn.Conv1d(WIDTH, WIDTH, 3, padding=dilation, dilation=dilation)
        self.norm = nn.BatchNorm1d(WIDTH)

    def forward(self, x):
        return x + torch.relu(self.norm(self.conv(x)))


class Calls(nn.Module):
    """Frames of 10 ms in, one row of logits every 40 ms out: none, work, rest, ten, next, half; speech; music."""

    def __init__(self):
        super().__init__()
        self.first = nn.Conv1d(BANDS, WIDTH, 5, stride=2, padding=2)
        self.first_norm = nn.BatchNorm1d(WIDTH)
        self.second = nn.Conv1d(WIDTH, WIDTH, 5, stride=2, padding=2)
        self.second_norm = nn.BatchNorm1d(WIDTH)
        self.blocks = nn.ModuleList(Block(dilation) for dilation in DILATIONS)
        self.drop = nn.Dropout(0.2)
        self.last = nn.Conv1d(WIDTH, CLASSES + SOUNDING, 1)

    def forward(self, x):
        x = torch.relu(self.first_norm(self.first(x)))
        x = torch.relu(self.second_norm(self.second(x)))
        for block in self.blocks:
            x = block(x)
        return self.last(self.drop(x))


def load(names):
    features = [np.fromfile(name, np.float32).reshape(-1, FRAMES, BANDS).transpose(0, 2, 1) for name in names]
    beside = lambda kind: np.concatenate(
        [np.fromfile(name.replace("features", kind).replace("f32", "u8"), np.uint8).reshape(-1, STEPS) for name in names]
    )
    bits = beside("sounding")
    sounding = np.stack([bits & 1, bits >> 1 & 1], 1).astype(np.float32)
    return np.concatenate(features), beside("labels"), sounding


def hidden(x):
    """Some bands and some moments are taken away, so that nothing hangs on one of them."""
    for scene in x:
        for _ in range(2):
            width = np.random.randint(1, 7)
            low = np.random.randint(0, BANDS - width)
            scene[low : low + width] = 0
        for _ in range(4):
            length = np.random.randint(1, 12)
            start = np.random.randint(0, FRAMES - length)
            scene[:, start : start + length] = 0
    return x


def throats():
    """Matrices that make bands what a longer or a shorter throat would have made of them."""
    edges = 700 * (10 ** (np.linspace(mel(LOW_HZ), mel(HIGH_HZ), BANDS + 2) / 2595) - 1)
    middles = edges[1:-1]
    for factor in np.linspace(0.82, 1.22, 11):
        place = np.interp(middles * factor, middles, np.arange(BANDS))
        low = np.minimum(place.astype(int), BANDS - 2)
        matrix = np.zeros((BANDS, BANDS), np.float32)
        matrix[np.arange(BANDS), low] = 1 - (place - low)
        matrix[np.arange(BANDS), low + 1] = place - low
        yield matrix


def mel(hz):
    return 2595 * np.log10(1 + hz / 700)


def varied(x, y, sounding, matrices):
    """Every scene by another throat, and faster or slower: there are few voices to learn from, and many to hear."""
    x, y, sounding = x.copy(), y.copy(), sounding.copy()
    for scene in range(len(x)):
        x[scene] = matrices[np.random.randint(len(matrices))] @ x[scene]
        speed = np.random.uniform(0.85, 1.2)
        # What is too short begins anew.
        frames = (np.arange(FRAMES) * speed).astype(int) % FRAMES
        steps = (np.arange(STEPS) * speed).astype(int) % STEPS
        x[scene], y[scene], sounding[scene] = x[scene][:, frames], y[scene][steps], sounding[scene][:, steps]
    return x, y, sounding


def folded(conv, norm):
    """A convolution that does what conv and norm do together."""
    scale = norm.weight / torch.sqrt(norm.running_var + norm.eps)
    return conv.weight * scale[:, None, None], norm.bias + (conv.bias - norm.running_mean) * scale


def write(model, path):
    layers, values = [], []

    def add(weight, bias, kind, stride=1, dilation=1):
        out, into, kernel = weight.shape
        layers.append({"kind": kind, "out": out, "in": into, "kernel": kernel, "stride": stride, "dilation": dilation})
        values.extend([weight.detach().numpy().astype("<f2").tobytes(), bias.detach().numpy().astype("<f2").tobytes()])

    add(*folded(model.first, model.first_norm), "conv", stride=2)
    add(*folded(model.second, model.second_norm), "conv", stride=2)
    for block in model.blocks:
        add(*folded(block.conv, block.norm), "residual", dilation=block.conv.dilation[0])
    add(model.last.weight, model.last.bias, "linear")
    header = json.dumps({"format": 2, "bands": BANDS, "layers": layers}).encode()
    with open(path, "wb") as file:
        file.write(struct.pack("<I", len(header)) + header + b"".join(values))


def main():
    folder, out = sys.argv[1], sys.argv[2]
    epochs = int(sys.argv[3]) if len(sys.argv) > 3 else 14
    torch.manual_seed(1)
    np.random.seed(1)
    torch.set_num_threads(int(sys.argv[4]) if len(sys.argv) > 4 else 2)
FOLDER holds features.*.f32, labels.*.u8 and sounding.*.u8, as training/scenes.ts writes them; scenes that begin with
50000 are kept aside to choose the best epoch by. Runs on Debian's python3-torch, on a processor, in about half an hour.
    kept = [name for name in names if "features.50000." in name]
    x, y, sounding = load([name for name in names if name not in kept])
    test_x, test_y, test_sounding = load(kept)
    print(f"{len(x)} scenes, {len(test_x)} kept aside", flush=True)
    model = Calls()
    batches = len(x) // BATCH
    optimiser = torch.optim.AdamW(model.parameters(), lr=2e-3, weight_decay=1e-3)
    schedule = torch.optim.lr_scheduler.OneCycleLR(optimiser, 4e-3, total_steps=epochs * batches)
    call_loss, sounding_loss = nn.CrossEntropyLoss(ignore_index=EITHER), nn.BCEWithLogitsLoss()

    def losses(logits, labels, bits):
        called = call_loss(logits[:, :CLASSES], torch.from_numpy(labels.astype(np.int64)))
        return called, sounding_loss(logits[:, CLASSES:], torch.from_numpy(bits))

    matrices = list(throats())
    best = float("inf")
    for epoch in range(epochs):
        model.train()
        order, began, total = np.random.permutation(len(x)), time.time(), 0.0
        for batch in range(batches):
            chosen = order[batch * BATCH : (batch + 1) * BATCH]
            scenes, labels, bits = varied(x[chosen], y[chosen], sounding[chosen], matrices)
            called, heard = losses(model(torch.from_numpy(hidden(scenes))), labels, bits)
            optimiser.zero_grad()
            (called + SOUNDING_SHARE * heard).backward()
            optimiser.step()
            schedule.step()
            total += called.item()
        model.eval()
        with torch.no_grad():
            logits = torch.cat([model(torch.from_numpy(test_x[at : at + 10])) for at in range(0, len(test_x), 10)])
            aside = losses(logits, test_y, test_sounding)[0].item()
            found = logits[:, :CLASSES].argmax(1).numpy()
            told = ((logits[:, CLASSES:].numpy() > 0) == test_sounding).mean((0, 2))
            marked = (test_y > 0) & (test_y < EITHER)
            right = (found == test_y)[marked].mean()
            false = ((found > 0) & (test_y == 0)).sum() / (len(test_x) * 0.4)
        print(f"epoch {epoch}: loss {total / batches:.4f}, aside {aside:.4f}, steps right {right:.3f}, steps falsely called a minute {false:.2f}, speech {told[0]:.3f}, music {told[1]:.3f}, {time.time() - began:.0f} s", flush=True)
        if aside < best:
            best = aside
            write(model, out)


main()
