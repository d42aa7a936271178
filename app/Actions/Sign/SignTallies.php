<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\ConfirmIdentity;
use App\Actions\Access\Trail;
use App\Adapters\Storage\BlobStore;
use App\Models\Migration;
use App\Models\Signature;
use App\Models\SignatureAct;
use App\Models\SignedPage;
use App\Models\SignedState;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Sign\ReportPage;
use App\Rulings\EffectiveRulings;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;
use App\Signing\SigningBlocks;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use Illuminate\Database\Connection;

/** Gives the signature of a person on tallies of a migration: on all of them, or, where one cannot be signed, on none. */
final readonly class SignTallies
{
    public function __construct(
        private Connection $database,
        private ConfirmIdentity $confirm,
        private SignedContent $content,
        private HeldLimits $limits,
        private SigningBlocks $blocks,
        private Trail $trail,
        private ReportPage $page,
        private BlobStore $blobs,
    ) {}

    /**
     * @param  non-empty-array<int, string>  $seen  by tally: the digest of the state that the person was shown
     * @return list<Signature>
     *
     * @throws Conflict when something stands in the way, or what was shown is no longer how it is
     * @throws \Illuminate\Validation\ValidationException when the password or the code is not right
     */
    public function __invoke(
        Migration $migration,
        array $seen,
        User $person,
        #[\SensitiveParameter]
        string $password,
        #[\SensitiveParameter]
        string $code,
    ): array {
        $method = ($this->confirm)($person, $password, $code);
        // Held in one order by everybody, so that nobody waits for somebody who waits for them.
        ksort($seen);

        return $this->database->transaction(function () use ($migration, $seen, $person, $method): array {
            $signatures = [];
            foreach ($seen as $id => $digest) {
                $signatures[] = $this->sign($migration, $id, $digest, $person, $method);
            }

            return $signatures;
        });
    }

    private function sign(Migration $migration, int $id, string $seen, User $person, string $method): Signature
    {
        // Nobody rules while somebody signs, and of two who sign in the same moment the second is shown what the first did.
        EffectiveRulings::hold($this->database, $id);
        $tally = Tally::query()
            ->whereKey($id)
            ->whereIn('dataset_id', $migration->datasets()->select('id'))
            ->with(HeldLimits::RELATIONS)
            ->firstOrFail();
        $signOff = SignOff::of($tally);
        $act = $this->act($signOff, $person, $migration);
        $limits = $this->limits->of($tally);
        foreach ([...$this->blocks->duties($tally, $person, $signOff), ...$this->blocks->of($tally, $limits)] as $block) {
            if (in_array($act->value, $block['for'], true)) {
                throw Conflict::because('blocked', "{$tally->dataset->name}: {$block['words']} Nothing was signed.");
            }
        }
        $content = $this->content->of($tally, $limits);
        if (! hash_equals(hash('sha256', $content), $seen)) {
            throw Conflict::because('changed-meanwhile', sprintf(
                '%s: what you were shown is no longer how it is; somebody ruled, waived or looked at rows meanwhile. Look at it again, '.
                    'then sign. Nothing was signed.',
                $tally->dataset->name,
            ));
        }
        $signature = $tally->signatures()->create([
            'act' => $act,
            'user_id' => $person->id,
            'role' => $person->roleIn($migration),
            'method' => $method,
            'words' => SigningWords::of($act, $tally, $limits),
            'digest' => SignedState::keep($content),
        ]);
        if ($act === SignatureAct::Accepted) {
            // From now on it is shown, printed and packed as it was when it was accepted.
            $html = $this->page->html($tally->unsetRelation('signatures'));
            SignedPage::query()->create(['signature_id' => $signature->id, 'html_digest' => $this->blobs->keep($html)]);
        }
        $this->trail->note(TrailAct::Signed, $person, "{$tally->dataset->name}, tally {$tally->number}: {$act->value}", $migration);

        return $signature->setRelation('user', $person);
    }

    private function act(SignOff $signOff, User $person, Migration $migration): SignatureAct
    {
        $act = $signOff->next();
        [$name, $number] = [$signOff->tally->dataset->name, $signOff->tally->number];
        if ($act === null) {
            throw Conflict::because(
                'signed',
                "{$name}: tally {$number} is {$signOff->state->value}; no signature is asked for. Nothing was signed.",
            );
        }
        if ($act->role() !== $person->roleIn($migration)) {
            $last = $signOff->round === [] ? null : $signOff->round[count($signOff->round) - 1];
            throw Conflict::because('not-your-turn', sprintf(
                '%s: tally %d waits to be %s by a %s%s. Nothing was signed.',
                $name,
                $number,
                $act->value,
                $act->role()?->label(),
                $last === null ? '' : sprintf('; %s gave the last signature ("%s")', $last->user->name, $last->act->value),
            ));
        }

        return $act;
    }
}
