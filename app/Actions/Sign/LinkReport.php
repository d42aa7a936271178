<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\Trail;
use App\Adapters\Storage\BlobStore;
use App\Models\ReportLink;
use App\Models\RevokedLink;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Sign\ReportPage;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;

/** Makes a link to the report as it stands, and takes one back. */
final readonly class LinkReport
{
    public function __construct(
        private ReportPage $page,
        private BlobStore $blobs,
        private Connection $database,
        private Trail $trail,
    ) {}

    /**
     * @param  string  $lastDay  on which the link leads to the report
     * @return array{link: ReportLink, token: string} the token is told once, and kept nowhere
     *
     * @throws Conflict where the migration lets no report be linked
     */
    public function __invoke(Tally $tally, string $lastDay, User $person): array
    {
        $migration = $tally->load('dataset.migration.signingTerms')->dataset->migration;
        if (! SigningTerms::of($migration)['mayLink']) {
            throw Conflict::because('no-links', 'Reports of this migration are not linked. A test manager can let them be, on the board.');
        }
        $token = ReportLink::token();
        $wasPurged = $tally->purged()->exists();
        $digest = $this->blobs->keep($this->page->html($tally));

        return $this->database->transaction(function () use ($tally, $wasPurged, $migration, $lastDay, $person, $token, $digest): array {
            $tally->mustNotBePurgedSince($wasPurged);
            $link = ReportLink::query()->create([
                'tally_id' => $tally->id,
                'token_hash' => hash('sha256', $token),
                'html_digest' => $digest,
                'ends_at' => CarbonImmutable::parse($lastDay, 'UTC')->endOfDay(),
                'user_id' => $person->id,
            ]);
            $this->trail->note(
                TrailAct::Linked,
                $person,
                "{$tally->dataset->name}, tally {$tally->number}: link {$link->id} until {$lastDay}",
                $migration,
            );

            return ['link' => $link->load(['user', 'revoked', 'openings']), 'token' => $token];
        });
    }

    /** Taken back twice it is taken back once. */
    public function revoke(ReportLink $link, User $person): void
    {
        $this->database->transaction(function () use ($link, $person): void {
            RevokedLink::query()->insertOrIgnore(['report_link_id' => $link->id, 'user_id' => $person->id, 'created_at' => now()]);
            $tally = $link->tally->load('dataset.migration');
            $this->trail->note(
                TrailAct::RevokedLink,
                $person,
                "{$tally->dataset->name}, tally {$tally->number}: link {$link->id}",
                $tally->dataset->migration,
            );
        });
    }
}
