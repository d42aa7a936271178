<?php

declare(strict_types=1);

namespace App\Providers;

use App\Actions\Access\TrailOfEntries;
use App\Actions\Deliver\EnterDelivery;
use App\Actions\Match\CountKey;
use App\Actions\Sign\ReceivePack;
use App\Actions\Tally\AdvanceRun;
use App\Actions\Work\ClearUp;
use App\Adapters\Database\Interval;
use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Mail\MailboxTransport;
use App\Adapters\Queue\Heartbeat;
use App\Adapters\Queue\WorkerSigns;
use App\Adapters\Report\Printer;
use App\Adapters\Runs\RunWork;
use App\Adapters\Seal\SealKeys;
use App\Adapters\Seal\TimeStamps;
use App\Adapters\Sources\Authorities;
use App\Adapters\Sources\OuterGate;
use App\Adapters\Sources\Sources;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\ChunkFolder;
use App\Adapters\Storage\Room;
use App\Adapters\Storage\SessionFiles;
use App\Adapters\Storage\TrialSamples;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\EntersTrail;
use App\Models\Migration;
use App\Models\Token;
use App\Policies\MigrationPolicy;
use App\Queries\Review\Masks;
use App\Queries\Sign\ReportContent;
use App\Queries\Work\WorkOfInstallation;
use App\Questions\QuestionContext;
use App\Rulings\FindingSet\CancellableSearch;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Connection;
use Illuminate\Database\Connectors\ConnectionFactory;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Middleware\TrustProxies;
use Illuminate\Queue\Events\JobAttempted;
use Illuminate\Queue\Events\JobProcessing;
use Illuminate\Queue\Events\Looping;
use Illuminate\Queue\Events\WorkerStopping;
use Illuminate\Queue\Jobs\SyncJob;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;
use Laravel\Sanctum\Sanctum;

/** Reads the settings once and hands them to whoever needs them. */
final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->bind(Filesystem::class, static fn() => Storage::disk('deliveries'));
        $this->app->bind(Connection::class, static fn() => DB::connection());
        $this->app->bind(StatefulGuard::class, static fn() => Auth::guard('web'));
        $this->app->when(BlobStore::class)->needs('$workFolder')->give(storage_path('work'));
        $this->app->when(ChunkFolder::class)->needs('$folder')->give(storage_path('chunks'));
        $this->app->when(PreparedSides::class)->needs('$folder')->give(storage_path('prepared'));
        $this->app->when(RunWork::class)->needs('$workFolder')->give(storage_path('work'));
        $this->app->when(RunWork::class)->needs('$memory')->giveConfig('nine-tally.memory');
        $this->app->singleton(RunWork::class);
        $this->app->when(RunWork::class)->needs('$smallBytes')->giveConfig('nine-tally.small_bytes');
        $this->app->when(AdvanceRun::class)->needs('$workers')->giveConfig('nine-tally.workers');
        $this->app->when(DeliveryReader::class)->needs('$rowLimit')->giveConfig('nine-tally.row_limit');
        // Who takes a delivery draws its sample, however long that takes.
        $this->app
            ->when(EnterDelivery::class)
            ->needs(DeliverySample::class)
            ->give(static fn(Application $app) => $app->make(DeliverySample::class, ['isPatient' => true]));
        $this->app->bind(Interval::class, static fn(): Interval => new Interval(config()->float('nine-tally.seconds_between_reports')));
        $this->app->when(WorkbookFiles::class)->needs('$secondsBetweenReports')->giveConfig('nine-tally.seconds_between_reports');
        $this->app->when(CountKey::class)->needs('$sampleRows')->giveConfig('nine-tally.sample_rows');
        $this->app->when(DeliveryReader::class)->needs('$previewRows')->giveConfig('nine-tally.preview_rows');
        $this->app->when(ClearUp::class)->needs('$keepPreparedSeconds')->giveConfig('nine-tally.keep_prepared_seconds');
        $this->app->when(ReportContent::class)->needs('$findings')->giveConfig('nine-tally.report_findings');
        $this->app->when(Sources::class)->needs('$sources')->giveConfig('nine-tally.sources');
        $this->app->when(Sources::class)->needs('$mostBytes')->giveConfig('nine-tally.snapshot_bytes');
        $this->app->when(Sources::class)->needs('$files')->giveConfig('nine-tally.source_files');
        $this->app->when(OuterGate::class)->needs('$inner')->giveConfig('nine-tally.inner_hosts');
        $this->app->when(Authorities::class)->needs('$folder')->give(storage_path('keys/authorities'));
        $this->app->when(TrialSamples::class)->needs('$folder')->give(storage_path('prepared'));
        $this->app->when(QuestionContext::class)->needs('$workFolder')->give(storage_path('work'));
        $this->app->when(WorkbookFiles::class)->needs('$folder')->give(storage_path('workbooks'));
        $this->app->when(WorkbookFiles::class)->needs('$workFolder')->give(storage_path('work'));
        $this->app->when(Printer::class)->needs('$workFolder')->give(storage_path('work'));
        $this->app->when(CancellableSearch::class)->needs('$page')->give(static fn(): ?string => request()->header('X-Page'));
        $this->app->when(WorkOfInstallation::class)->needs('$folder')->give(storage_path());
        $this->app->when(ReceivePack::class)->needs('$folder')->give(storage_path('chunks'));
        $this->app->when(SealKeys::class)->needs('$folder')->give(storage_path('keys'));
        $this->app->when(TimeStamps::class)->needs('$address')->giveConfig('nine-tally.time_stamps');
        $this->app->when(TimeStamps::class)->needs('$authority')->giveConfig('nine-tally.time_stamp_authority');
        $this->app->when(Room::class)->needs('$folder')->give(storage_path());
        $this->app->when(Masks::class)->needs('$secret')->giveConfig('app.key');
        $this->app->when(Printer::class)->needs('$chromium')->giveConfig('nine-tally.chromium');
    }

    public function boot(): void
    {
        foreach (['created', 'updated'] as $event) {
            Event::listen("eloquent.{$event}: *", function (string $name, array $entries) use ($event): void {
                $entry = $entries[0] ?? null;
                if ($entry instanceof Model && in_array(EntersTrail::class, class_uses($entry), true)) {
                    $this->app->make(TrailOfEntries::class)->{$event}($entry);
                }
            });
        }
        TrustProxies::at(config()->array('nine-tally.proxies'));
        Gate::policy(Migration::class, MigrationPolicy::class);
        // Addresses without a host: the page is the same under every name and port that leads to it.
        Vite::createAssetPathsUsing(static fn(string $path): string => '/'.ltrim($path, '/'));
        Model::shouldBeStrict(! $this->app->isProduction());
        Mail::extend('mailbox', static fn() => new MailboxTransport(storage_path('mailbox')));
        Sanctum::usePersonalAccessTokenModel(Token::class);
        Sanctum::authenticateAccessTokensUsing(
            static fn(Token $token, bool $goesOn): bool => $goesOn && $token->tokenable?->locked_at === null,
        );
        $this->keepJobsAlive();
        Session::extend(
            'session-files',
            static fn(Application $app) => new SessionFiles(
                $app->make('files'),
                config()->string('session.files'),
                config()->integer('session.lifetime'),
            ),
        );
    }

    /** While a worker is at a job, and whatever the job is. */
    private function keepJobsAlive(): void
    {
        $this->app->singleton(
            Heartbeat::class,
            static fn(Application $app) => new Heartbeat(
                $app->make(Repository::class),
                $app->make(ConnectionFactory::class),
                static fn() => $app->make('redis'),
            ),
        );
        $this->app->singleton(WorkerSigns::class);
        Event::listen(static fn(Looping $event) => app(WorkerSigns::class)->waits($event->queue));
        Event::listen(static function (JobProcessing $event): void {
            if (! $event->job instanceof SyncJob) {
                app(WorkerSigns::class)->begins($event->job->getQueue(), class_basename($event->job->resolveName()));
                app(Heartbeat::class)->begin($event->connectionName, $event->job);
            }
        });
        Event::listen(static function (JobAttempted $event): void {
            if (! $event->job instanceof SyncJob) {
                app(Heartbeat::class)->end();
                app(WorkerSigns::class)->ends();
            }
        });
        Event::listen(static fn(WorkerStopping $event) => app(WorkerSigns::class)->leaves());
    }
}
