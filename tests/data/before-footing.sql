-- A database as the commit before "Footing" left it, made by its own code: scores of flat and grouped formats tied change
-- by change, replaced and failed footage, a video, an own move, a score that cannot be read, one beyond the limits, one put away.
SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SELECT pg_catalog.set_config('search_path', '', false);
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;
SET default_tablespace = '';
SET default_table_access_method = heap;
CREATE TABLE public.footage (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    workout_id uuid NOT NULL,
    name text NOT NULL,
    bytes bigint NOT NULL,
    upload text,
    hash text,
    state text DEFAULT 'preparing'::text NOT NULL,
    problem text,
    warning text,
    facts jsonb,
    proxy_hash text,
    peaks_hash text,
    beeps jsonb,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT footage_state_check CHECK ((state = ANY (ARRAY['preparing'::text, 'ready'::text, 'failed'::text])))
);
CREATE TABLE public.jobs (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    kind text NOT NULL,
    workout_id uuid NOT NULL,
    footage_id uuid,
    state text DEFAULT 'queued'::text NOT NULL,
    share real DEFAULT 0 NOT NULL,
    attempts integer DEFAULT 0 NOT NULL,
    cancel_asked boolean DEFAULT false NOT NULL,
    problem text,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    started_at timestamp with time zone,
    heartbeat_at timestamp with time zone,
    ended_at timestamp with time zone,
    CONSTRAINT jobs_kind_check CHECK ((kind = ANY (ARRAY['prepare'::text, 'render'::text]))),
    CONSTRAINT jobs_state_check CHECK ((state = ANY (ARRAY['queued'::text, 'active'::text, 'done'::text, 'failed'::text, 'cancelled'::text])))
);
CREATE TABLE public.migrations (
    name text NOT NULL,
    run_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.moves (
    name text NOT NULL,
    short text NOT NULL,
    cue text NOT NULL,
    posture text NOT NULL,
    muscles text[] NOT NULL,
    impact text NOT NULL,
    effort smallint NOT NULL,
    side_rule text NOT NULL,
    gear text[] NOT NULL,
    easier text NOT NULL,
    harder text NOT NULL,
    caution text NOT NULL,
    seconds_per_rep real NOT NULL,
    tags text[] NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT moves_effort_check CHECK (((effort >= 1) AND (effort <= 5))),
    CONSTRAINT moves_seconds_per_rep_check CHECK ((seconds_per_rep > (0)::double precision))
);
CREATE TABLE public.packs (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    workout_id uuid NOT NULL,
    job_id uuid NOT NULL,
    title text NOT NULL,
    video_hash text NOT NULL,
    video_bytes bigint NOT NULL,
    captions text NOT NULL,
    chapters text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.stitches (
    workout_id uuid NOT NULL,
    segment_id text NOT NULL,
    edge text NOT NULL,
    footage_ms integer NOT NULL,
    confidence real NOT NULL,
    evidence text[] NOT NULL,
    CONSTRAINT stitches_confidence_check CHECK (((confidence >= (0)::double precision) AND (confidence <= (1)::double precision))),
    CONSTRAINT stitches_edge_check CHECK ((edge = ANY (ARRAY['start'::text, 'end'::text]))),
    CONSTRAINT stitches_footage_ms_check CHECK ((footage_ms >= 0))
);
CREATE TABLE public.workouts (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    score jsonb NOT NULL,
    score_revision integer DEFAULT 1 NOT NULL,
    stitch_revision integer DEFAULT 1 NOT NULL,
    is_demo boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    removed_at timestamp with time zone
);
INSERT INTO public.footage VALUES ('7c6a300b-80dc-4192-8035-49665b6333ab', '7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'first-take.mp4', 1000, 'upload-Deck Hours 21: flat parts-1', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa', 'ready', NULL, NULL, '{"rate": {"den": 1, "num": 30}, "width": 1280, "height": 720, "audioRate": 48000, "brokenEnd": false, "audioCodec": "aac", "durationMs": 3000000, "videoCodec": "h264", "audioChannels": 1, "browserPlayable": true}', NULL, NULL, '[{"hz": 2000, "atMs": 12000.5, "strength": 0.9, "durationMs": 400}]', '2026-11-25 03:15:47.645722+00');
INSERT INTO public.footage VALUES ('a9ad885d-799c-4416-841b-589a06956dcc', '7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'deck.mp4', 2000, 'upload-Deck Hours 21: flat parts-2', 'bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb', 'ready', NULL, NULL, '{"rate": {"den": 1, "num": 30}, "width": 1280, "height": 720, "audioRate": 48000, "brokenEnd": false, "audioCodec": "aac", "durationMs": 3000000, "videoCodec": "h264", "audioChannels": 1, "browserPlayable": true}', NULL, NULL, '[{"hz": 2000, "atMs": 12000.5, "strength": 0.9, "durationMs": 400}, {"hz": 1500, "atMs": 52001.25, "strength": 0.4, "durationMs": 80}]', '2026-11-25 03:15:47.651144+00');
INSERT INTO public.footage VALUES ('2d967adf-2baa-4b98-9e7d-c558276f49fa', '7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'note.txt', 10, 'upload-Deck Hours 21: flat parts-3', NULL, 'failed', 'This is not a video that can be read.', NULL, NULL, NULL, NULL, NULL, '2026-11-25 03:15:47.653302+00');
INSERT INTO public.footage VALUES ('81488224-893e-4e18-91ec-73b9b74de9c9', '2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'first-take.mp4', 1000, 'upload-Deck Hours 22: groups-1', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa', 'ready', NULL, NULL, '{"rate": {"den": 1, "num": 30}, "width": 1280, "height": 720, "audioRate": 48000, "brokenEnd": false, "audioCodec": "aac", "durationMs": 3000000, "videoCodec": "h264", "audioChannels": 1, "browserPlayable": true}', NULL, NULL, '[{"hz": 2000, "atMs": 12000.5, "strength": 0.9, "durationMs": 400}]', '2026-11-25 03:15:47.698457+00');
INSERT INTO public.footage VALUES ('e72b8688-a345-431d-bed1-049209d2f0b0', '2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'deck.mp4', 2000, 'upload-Deck Hours 22: groups-2', 'bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb', 'ready', NULL, NULL, '{"rate": {"den": 1, "num": 30}, "width": 1280, "height": 720, "audioRate": 48000, "brokenEnd": false, "audioCodec": "aac", "durationMs": 3000000, "videoCodec": "h264", "audioChannels": 1, "browserPlayable": true}', NULL, NULL, '[{"hz": 2000, "atMs": 12000.5, "strength": 0.9, "durationMs": 400}, {"hz": 1500, "atMs": 52001.25, "strength": 0.4, "durationMs": 80}]', '2026-11-25 03:15:47.700656+00');
INSERT INTO public.footage VALUES ('4a737c26-d9ec-478d-9ad7-223e2c9d5d86', '2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'note.txt', 10, 'upload-Deck Hours 22: groups-3', NULL, 'failed', 'This is not a video that can be read.', NULL, NULL, NULL, NULL, NULL, '2026-11-25 03:15:47.702262+00');
INSERT INTO public.jobs VALUES ('d93d5102-adff-4015-a2b1-52232c4360a0', 'render', '7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'a9ad885d-799c-4416-841b-589a06956dcc', 'queued', 0, 0, false, NULL, '2026-11-25 03:15:47.668251+00', NULL, NULL, NULL);
INSERT INTO public.jobs VALUES ('31afeeca-2a54-4291-8ef4-98b37086c2e8', 'render', '2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'e72b8688-a345-431d-bed1-049209d2f0b0', 'queued', 0, 0, false, NULL, '2026-11-25 03:15:47.714234+00', NULL, NULL, NULL);
INSERT INTO public.migrations VALUES ('001_workouts.sql', '2026-11-25 03:15:47.555753+00');
INSERT INTO public.migrations VALUES ('002_moves.sql', '2026-11-25 03:15:47.555753+00');
INSERT INTO public.moves VALUES ('Punt push', '', '', 'standing', '{grip}', 'still', 3, 'none', '{pole}', '', '', '', 2.4, '{}', '2026-11-25 03:15:47.761426+00');
INSERT INTO public.packs VALUES ('f929f465-2578-4373-b697-b5baaa097aa0', '7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'd93d5102-adff-4015-a2b1-52232c4360a0', 'Deck Hours 21: flat parts', 'cccccccccccccccccccccccccccccccccccccccccccccccccccccccccccccccc', 5, 'WEBVTT
', '0:00 Start
', '2026-11-25 03:15:47.671555+00');
INSERT INTO public.packs VALUES ('783b5fa6-26b1-40c3-b14f-0bf5292dddc5', '2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', '31afeeca-2a54-4291-8ef4-98b37086c2e8', 'Deck Hours 22: groups', 'cccccccccccccccccccccccccccccccccccccccccccccccccccccccccccccccc', 5, 'WEBVTT
', '0:00 Start
', '2026-11-25 03:15:47.717316+00');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'welcome/talk', 'start', 5000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'warm-up/demo/1', 'start', 17000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'warm-up/demo/2', 'start', 27000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'warm-up/s1/work', 'start', 37000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'warm-up/s2/work', 'start', 67000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/demo/1', 'start', 87000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/demo/2', 'start', 97000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/lead', 'start', 107000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/s1/left/work', 'start', 112000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/s1/left/rest', 'start', 152000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/s1/right/work', 'start', 172000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/s1/right/rest', 'start', 212000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/s2/work', 'start', 232000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r1/break', 'start', 272000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s1/left/work', 'start', 332000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s1/left/rest', 'start', 372000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s1/right/work', 'start', 392000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s1/right/rest', 'start', 432000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s2/work', 'start', 452000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'main/r2/s2/rest', 'start', 492000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/demo/1', 'start', 512000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/demo/2', 'start', 522000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s1/set1/work', 'start', 532000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s1/set1/rest', 'start', 562000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s1/set2/work', 'start', 577000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s1/change', 'start', 607000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s2/set1/work', 'start', 652000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s2/set1/rest', 'start', 682000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s2/set2/work', 'start', 697000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'slow/s2/set2/rest', 'start', 727000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/demo/1', 'start', 742000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/r1/s1/work', 'start', 752000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/r1/s1/rest', 'start', 772000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/r2/s1/work', 'start', 812000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/r2/s1/rest', 'start', 842000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'climb/r3/s1/work', 'start', 872000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'odd/s1/work', 'start', 912000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'odd/s1/rest', 'start', 957000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'odd/r1/s1/work', 'start', 972000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'odd/r1/s2/work', 'start', 1007000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'odd/break', 'start', 1042000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'bye/talk', 'start', 1102000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', 'bye/talk', 'end', 1102000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r1/s1/work', 'start', 5000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r1/s1/rest', 'start', 35000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r1/s2/work', 'start', 50000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r1/s2/rest', 'start', 80000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r2/s1/work', 'start', 95000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r2/s1/rest', 'start', 125000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/r2/s2/work', 'start', 140000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g1/break', 'start', 170000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r1/s1/work', 'start', 230000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r1/s1/rest', 'start', 260000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r1/s2/work', 'start', 275000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r1/s2/rest', 'start', 305000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r2/s1/work', 'start', 320000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r2/s1/rest', 'start', 350000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r2/s2/work', 'start', 365000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pairs/g2/r2/s2/rest', 'start', 395000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r1/work', 'start', 410000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r1/rest', 'start', 430000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r2/work', 'start', 440000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r2/rest', 'start', 460000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r3/work', 'start', 470000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r3/rest', 'start', 490000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/r4/work', 'start', 500000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g1/break', 'start', 520000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/talk', 'start', 560000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r1/work', 'start', 580000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r1/rest', 'start', 600000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r2/work', 'start', 610000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r2/rest', 'start', 630000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r3/work', 'start', 640000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r3/rest', 'start', 660000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r4/work', 'start', 670000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'burst/g2/r4/rest', 'start', 690000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r1/s1/work', 'start', 700000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r1/s1/rest', 'start', 710000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r1/s2/work', 'start', 720000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r1/s2/rest', 'start', 730000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r2/s1/work', 'start', 740000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r2/s1/rest', 'start', 760000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r2/s2/work', 'start', 780000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r2/s2/rest', 'start', 800000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r3/s1/work', 'start', 820000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r3/s1/rest', 'start', 850000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/r3/s2/work', 'start', 880000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g1/break', 'start', 910000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r1/s1/work', 'start', 970000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r1/s1/rest', 'start', 980000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r2/s1/work', 'start', 990000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r2/s1/rest', 'start', 1010000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r3/s1/work', 'start', 1030000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'ladder/g2/r3/s1/rest', 'start', 1060000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g1/s1/work', 'start', 1090000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g1/s1/rest', 'start', 1150000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g1/s2/work', 'start', 1170000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g1/s3/work', 'start', 1190000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g1/rest', 'start', 1210000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g2/s1/work', 'start', 1250000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g2/s1/rest', 'start', 1310000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/g2/s2/work', 'start', 1330000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r1/break', 'start', 1350000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g1/s1/work', 'start', 1380000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g1/s1/rest', 'start', 1440000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g1/s2/work', 'start', 1460000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g1/s3/work', 'start', 1480000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g1/rest', 'start', 1500000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g2/s1/work', 'start', 1540000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g2/s1/rest', 'start', 1600000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g2/s2/work', 'start', 1620000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'slots/r2/g2/rest', 'start', 1640000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/r1/s1/work', 'start', 1680000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/r1/s2/work', 'start', 1740000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/r1/s2/rest', 'start', 1760000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/r2/s1/work', 'start', 1790000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/r2/s2/work', 'start', 1850000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g1/break', 'start', 1870000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g2/r1/s1/work', 'start', 1920000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g2/r1/s1/rest', 'start', 1960000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g2/r2/s1/work', 'start', 1990000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'uneven/g2/r2/s1/rest', 'start', 2030000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r1/s1/work', 'start', 2060000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r1/s1/rest', 'start', 2120000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r1/s2/work', 'start', 2150000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r1/s2/rest', 'start', 2210000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r2/s1/work', 'start', 2240000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r2/s1/rest', 'start', 2300000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r2/s2/work', 'start', 2330000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'buy/r2/s2/rest', 'start', 2390000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'couplet/r1/s1/work', 'start', 2420000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'couplet/r1/s1/rest', 'start', 2600000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'couplet/r2/s1/work', 'start', 2630000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'couplet/r2/s1/rest', 'start', 2810000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g1/up/work', 'start', 2840000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g1/rest', 'start', 3080000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g1/down/work', 'start', 3140000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g1/after', 'start', 3356000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g2/up/work', 'start', 3446000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g2/rest', 'start', 3686000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g2/down/work', 'start', 3746000, 0.97, '{beep}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g2/after', 'start', 3956000, 1, '{hand}');
INSERT INTO public.stitches VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', 'pyramid/g2/after', 'end', 4046000, 1, '{hand}');
INSERT INTO public.workouts VALUES ('7f5c2a32-95b3-4af3-96e3-f27351e7e292', '{"above": [], "below": [], "count": "down", "demos": {"place": "beforeBlocks", "eachMs": 10000}, "moves": [], "needs": {}, "title": "Deck Hours 21: flat parts", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "welcome", "name": "Welcome", "above": [], "beside": "", "format": "talk", "guessMs": 12000}, {"key": "warm-up", "link": "", "name": "Warm-up", "above": [], "where": "here", "beside": "", "format": "warmUp", "workMs": 30000, "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Heel digs", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": 20, "above": [], "label": "Mooring march", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "reminderMs": 8000}, {"key": "main", "name": "Main", "above": [], "beside": "", "format": "circuit", "restMs": 20000, "rounds": 2, "workMs": 40000, "lastRest": "replaced", "leadInMs": 5000, "stations": [{"reps": null, "above": [], "label": "Jug lift", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": "each"}, {"reps": null, "above": [], "label": "Keel hold", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": "", "roundBreakMs": 60000}, {"key": "slow", "name": "Slow", "sets": 2, "above": [], "beside": "", "format": "byStation", "restMs": 15000, "workMs": 30000, "changeMs": 45000, "lastRest": "replaced", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Rope pull", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": ""}, {"key": "climb", "name": "Climb", "above": [], "shape": "up", "steps": 3, "beside": "", "format": "slot", "slotMs": 60000, "stepMs": 10000, "startMs": 20000, "lastRest": "dropped", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Deck-rail squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": ""}, {"key": "odd", "from": null, "name": "Odd", "rows": [{"set": null, "kind": "work", "reps": null, "side": null, "above": [], "label": "Heel digs", "round": null, "beside": "", "effort": null, "posture": null, "estimated": false, "durationMs": 45000}, {"set": null, "kind": "rest", "reps": null, "side": null, "above": [], "label": "", "round": null, "beside": "", "effort": null, "posture": null, "estimated": false, "durationMs": 15000}, {"set": null, "kind": "work", "reps": null, "side": "left", "above": [], "label": "Jug lift", "round": 1, "beside": "", "effort": null, "posture": null, "estimated": false, "durationMs": 35000}, {"set": null, "kind": "work", "reps": null, "side": "right", "above": [], "label": "Jug lift", "round": 1, "beside": "", "effort": null, "posture": null, "estimated": false, "durationMs": 35000}, {"set": null, "kind": "break", "reps": null, "side": null, "above": [], "label": "Sip", "round": null, "beside": "", "effort": null, "posture": null, "estimated": false, "durationMs": 60000}], "above": [], "beside": "", "format": "list"}, {"key": "bye", "name": "Bye", "above": [], "beside": "", "format": "talk", "guessMs": null}], "dismissed": [], "promiseMs": 900000, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 2, false, '2026-11-25 03:15:47.637081+00', '2026-11-25 03:15:47.655644+00', NULL);
INSERT INTO public.workouts VALUES ('2ea1ab05-8e4a-49ae-b99d-4ae2fdc6188a', '{"above": [], "below": [], "count": "down", "demos": {"place": "none", "eachMs": 10000}, "moves": [], "needs": {}, "title": "Deck Hours 22: groups", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "pairs", "name": "Pairs", "above": [], "times": 2, "beside": "", "format": "pairs", "groups": [[{"reps": null, "above": [], "label": "Jug lift", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Lock-gate push", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Rope pull", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Gangway step", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 15000, "workMs": 30000, "lastRest": "replaced", "leadInMs": 0, "restLabel": "", "pairBreakMs": 60000}, {"key": "burst", "name": "Burst", "above": [], "beside": "", "format": "burst", "groups": [[{"reps": null, "above": [], "label": "Gangway step", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Lock-gate push", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Deck-rail squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 10000, "talkMs": 20000, "workMs": 20000, "lastRest": "replaced", "leadInMs": 0, "intervals": 4, "restLabel": "", "burstBreakMs": 40000}, {"key": "ladder", "name": "Ladder", "above": [], "rungs": 3, "beside": "", "format": "ladder", "groups": [[{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Lunge", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Keel hold", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "stepMs": 10000, "startMs": 10000, "lastRest": "replaced", "leadInMs": 0, "restAfter": "station", "restLabel": "", "groupBreakMs": 60000}, {"key": "slots", "name": "Slots", "above": [], "beside": "", "format": "compound", "groups": [[{"reps": null, "above": [], "label": "Anchor row", "swaps": [{"from": 2, "label": "Rope pull"}], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Shadow boxing", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Keel hold", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Jug lift", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Plank", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "longMs": 60000, "passes": 2, "shortMs": 20000, "lastRest": "replaced", "leadInMs": 0, "restLabel": "", "longRestMs": 20000, "slotRestMs": 40000, "passBreakMs": 30000}, {"key": "uneven", "name": "Uneven", "above": [], "beside": "", "format": "uneven", "groups": [[{"reps": null, "above": [], "label": "Jug lift", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": 60000, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Pump-out hop", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": 20000, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Towel tear", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 30000, "rounds": 2, "workMs": 40000, "lastRest": "replaced", "leadInMs": 0, "restLabel": "", "groupBreakMs": 50000}, {"key": "buy", "name": "Buy", "above": [], "beside": "", "format": "buyIn", "groups": [[{"reps": 12, "above": [], "label": "Deck-rail squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Keel hold", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": 8, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Plank", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 30000, "rounds": 2, "workMs": 60000, "lastRest": "replaced", "leadInMs": 0, "restLabel": "", "roundBreakMs": 0}, {"key": "couplet", "name": "Couplet", "above": [], "beside": "", "format": "couplet", "groups": [[{"reps": 8, "above": [], "label": "Lock-gate push", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": 6, "above": [], "label": "Deck-rail squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 30000, "rounds": 2, "workMs": 180000, "lastRest": "replaced", "leadInMs": 0, "restLabel": ""}, {"key": "pyramid", "name": "Pyramid", "above": [], "beside": "", "format": "pyramid", "groups": [[{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], [{"reps": null, "above": [], "label": "Crunch", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}, {"reps": null, "above": [], "label": "Lunge", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}]], "restMs": 60000, "climbMs": 240000, "lastRest": "replaced", "leadInMs": 0, "stepReps": 2, "restLabel": "", "startReps": 2, "groupRestMs": 90000}], "dismissed": [], "promiseMs": null, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 2, false, '2026-11-25 03:15:47.686726+00', '2026-11-25 03:15:47.704273+00', NULL);
INSERT INTO public.workouts VALUES ('6bd677b6-a9e5-4c2b-a61c-b0994a61dbb7', '{"above": [], "below": [], "count": "down", "demos": {"place": "none", "eachMs": 10000}, "moves": [{"cue": "", "gear": ["pole"], "name": "Punt push", "tags": [], "short": "", "easier": "", "effort": 3, "harder": "", "impact": "still", "caution": "", "muscles": ["grip"], "posture": "standing", "sideRule": "none", "secondsPerRep": 2.4}], "needs": {}, "title": "Deck Hours 23: punt", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "main", "name": "Main", "above": [], "beside": "", "format": "circuit", "restMs": 0, "rounds": 1, "workMs": 40000, "lastRest": "replaced", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Punt push", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": "", "roundBreakMs": 0}], "dismissed": [], "promiseMs": null, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 1, false, '2026-11-25 03:15:47.768895+00', '2026-11-25 03:15:47.768895+00', NULL);
INSERT INTO public.workouts VALUES ('53f79163-85d6-4207-981b-28f040a40ec5', '{"above": [], "below": [], "count": "down", "demos": {"place": "none", "eachMs": 10000}, "moves": [], "needs": {}, "title": "Deck Hours 24: torn page", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "main", "name": "Main", "above": [], "beside": "", "format": "circuit", "restMs": 0, "rounds": 1, "workMs": "forty", "lastRest": "replaced", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": "", "roundBreakMs": 0}], "dismissed": [], "promiseMs": null, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 1, false, '2026-11-25 03:15:47.770667+00', '2026-11-25 03:15:47.770667+00', NULL);
INSERT INTO public.workouts VALUES ('88ea268c-ff66-4c00-879d-e551dbef3b5e', '{"above": [], "below": [], "count": "down", "demos": {"place": "none", "eachMs": 10000}, "moves": [], "needs": {}, "title": "Deck Hours 25: for ever", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "main", "name": "Main", "above": [], "beside": "", "format": "circuit", "restMs": 0, "rounds": 500, "workMs": 400000, "lastRest": "replaced", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": "", "roundBreakMs": 0}], "dismissed": [], "promiseMs": null, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 1, false, '2026-11-25 03:15:47.776284+00', '2026-11-25 03:15:47.776284+00', NULL);
INSERT INTO public.workouts VALUES ('3394377e-a237-4553-9aeb-711b911cd10f', '{"above": [], "below": [], "count": "down", "demos": {"place": "none", "eachMs": 10000}, "moves": [], "needs": {}, "title": "Deck Hours 26: put away", "caution": "both", "version": 1, "readings": {"emom": "reps", "round": "pass", "tabata": "strict"}, "sections": [{"key": "main", "name": "Main", "above": [], "beside": "", "format": "circuit", "restMs": 0, "rounds": 1, "workMs": 40000, "lastRest": "replaced", "leadInMs": 0, "stations": [{"reps": null, "above": [], "label": "Squat", "swaps": [], "beside": "", "effort": null, "restMs": null, "workMs": null, "posture": null, "sideRule": null}], "restLabel": "", "roundBreakMs": 0}], "dismissed": [], "promiseMs": null, "vocabulary": {"set": null, "block": null, "round": null, "station": null}}', 1, 1, false, '2026-11-25 03:15:47.77856+00', '2026-11-25 03:15:47.77856+00', '2026-11-25 03:15:47.779616+00');
ALTER TABLE ONLY public.footage
    ADD CONSTRAINT footage_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.footage
    ADD CONSTRAINT footage_upload_key UNIQUE (upload);
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.migrations
    ADD CONSTRAINT migrations_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.packs
    ADD CONSTRAINT packs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.stitches
    ADD CONSTRAINT stitches_pkey PRIMARY KEY (workout_id, segment_id, edge);
ALTER TABLE ONLY public.workouts
    ADD CONSTRAINT workouts_pkey PRIMARY KEY (id);
CREATE INDEX footage_by_workout ON public.footage USING btree (workout_id, created_at DESC);
CREATE INDEX jobs_by_workout ON public.jobs USING btree (workout_id, created_at DESC);
CREATE UNIQUE INDEX moves_by_name ON public.moves USING btree (lower(name));
CREATE INDEX packs_by_workout ON public.packs USING btree (workout_id, created_at DESC);
ALTER TABLE ONLY public.footage
    ADD CONSTRAINT footage_workout_id_fkey FOREIGN KEY (workout_id) REFERENCES public.workouts(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_footage_id_fkey FOREIGN KEY (footage_id) REFERENCES public.footage(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_workout_id_fkey FOREIGN KEY (workout_id) REFERENCES public.workouts(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.packs
    ADD CONSTRAINT packs_job_id_fkey FOREIGN KEY (job_id) REFERENCES public.jobs(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.packs
    ADD CONSTRAINT packs_workout_id_fkey FOREIGN KEY (workout_id) REFERENCES public.workouts(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.stitches
    ADD CONSTRAINT stitches_workout_id_fkey FOREIGN KEY (workout_id) REFERENCES public.workouts(id) ON DELETE CASCADE;
