<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Actions\Sign\LinkReport;
use App\Adapters\Storage\BlobStore;
use App\Http\Controllers\Controller;
use App\Models\LinkOpenings;
use App\Models\ReportLink;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Queries\Sign\ReportPage;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Reports that somebody without an account reads: by a link that ends, and can be taken back. */
final class ReportLinkController extends Controller
{
    private const NO_REPORT = '<!doctype html><meta charset="utf-8"><title>No report</title>'.
        '<p>This link leads to no report: it is over, was taken back, or what it showed was purged. Ask whoever sent it.</p>';

    public function index(Tally $tally): JsonResponse
    {
        $terms = SigningTerms::of($tally->load('dataset.migration.signingTerms')->dataset->migration);
        $links = ReportLink::query()->where('tally_id', $tally->id)->with(['user', 'revoked', 'openings'])->orderByDesc('id')->get();

        return response()->json([
            'mayLink' => $terms['mayLink'],
            'items' => array_values($links->map(self::shown(...))->all()),
        ]);
    }

    public function store(Request $request, Tally $tally, LinkReport $linkReport): JsonResponse
    {
        $request->validate(['lastDay' => ['required', 'date_format:Y-m-d', 'after_or_equal:today', 'before:+1 year']], [
            'lastDay.after_or_equal' => 'This day is over. Choose today or a later one.',
            'lastDay.before' => 'A link ends within a year.',
        ]);
        ['link' => $link, 'token' => $token] = $linkReport($tally, $request->string('lastDay')->toString(), $this->person($request));

        return response()->json([...self::shown($link), 'address' => url("/shared/{$token}")], Response::HTTP_CREATED);
    }

    public function revoke(Request $request, ReportLink $reportLink, LinkReport $linkReport): Response
    {
        $linkReport->revoke($reportLink, $this->person($request));

        return response()->noContent();
    }

    /** For whoever has the link. Whether it was never there, is over or was taken back is not told. */
    public function open(string $token, BlobStore $blobs): Response
    {
        $link = ReportLink::open($token);
        $headers = [
            'Content-Type' => 'text/html; charset=utf-8',
            'Content-Security-Policy' => ReportPage::POLICY,
            'Referrer-Policy' => 'no-referrer',
            'X-Robots-Tag' => 'noindex, nofollow',
            'Cache-Control' => 'no-store',
        ];
        if ($link === null || ! $blobs->has($link->html_digest)) {
            return response(
                self::NO_REPORT,
                Response::HTTP_NOT_FOUND,
                $headers,
            );
        }
        LinkOpenings::count($link);

        return response((string) file_get_contents($blobs->path($link->html_digest)), headers: $headers);
    }

    /** @return array<string, mixed> */
    private static function shown(ReportLink $link): array
    {
        return [
            'id' => $link->id,
            'endsAt' => $link->ends_at->toIso8601ZuluString(),
            'isOpen' => $link->isOpen(),
            'isRevoked' => $link->revoked !== null,
            'openings' => $link->openings->openings ?? 0,
            'by' => $link->user->name,
            'at' => $link->created_at->toIso8601ZuluString(),
        ];
    }
}
